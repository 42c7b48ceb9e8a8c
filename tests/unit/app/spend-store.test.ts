// The page of spend over charges by hand: what the store shows, and what it does when it is asked anew before an answer has come.
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import { useData } from '../../../app/stores/data'
import { useSkuWords } from '../../../app/stores/sku-words'
import { useSpend } from '../../../app/stores/spend'
import { answersPacked } from '../../../core/spend/answer'
import type { Question } from '../../../core/spend/question'
import type { Sentence } from '../../../core/spend/sentence'
import { answering, refusal } from '../../support/answering'
import { cubeOf, type PlainCharge } from '../../support/random-charges'

const charge = (day: string, source: string, ServiceName: string | null, amount: string, currency = 'EUR'): PlainCharge => ({
  ...{ day, hour: 0, currency, amount, source, values: { ServiceName, ChargeCategory: 'Usage', SkuId: 'sku-1' }, tags: {} },
})
// «near» lags a day behind «far», which has a part of the 6th
const cube = cubeOf([
  charge('2026-10-01', 'near', 'Disks', '8'),
  charge('2026-10-05', 'near', 'Disks', '100'),
  charge('2026-11-01', 'near', 'Disks', '5'),
  charge('2026-11-04', 'near', 'Servers', '7'),
  charge('2026-11-05', 'far', 'Servers', '20'),
  charge('2026-11-05', 'far', null, '-2'),
  charge('2026-11-05', 'far', 'Servers', '3', 'USD'),
  charge('2026-11-06', 'far', 'Servers', '1'),
])
const facts = {
  ...{ damaged: [], within: null, reportCurrency: null, columns: [], tags: [], revision: 1, found: [], unused: [], inherited: [] },
  ...{ hourly: false, firstDay: '2026-10-01', lastDay: '2026-11-05', currencies: ['EUR', 'USD'], charges: 8 },
  sources: [
    { source: 'near', lastDay: '2026-11-04', partialDay: null, deliveredAt: '2026-11-05T00:00:00Z', laterFrom: null },
    { source: 'far', lastDay: '2026-11-05', partialDay: '2026-11-06', deliveredAt: '2026-11-06T12:00:00Z', laterFrom: null },
  ],
}
const days = { firstDay: '2026-10-01', lastDay: '2026-11-05', sources: { near: '2026-11-04', far: '2026-11-05' } }
const sentence = (more: Partial<Sentence> = {}): Sentence => ({
  ...{ measure: 'billedCost', splitBy: ['ServiceName'], grain: 'day', period: 'this-month', against: 'before' },
  ...{ keep: {}, leaveOut: {}, conditions: [], currency: null, reportCurrency: null, chart: 'columns', largest: 7 },
  ...{ steps: [], stepOrder: ['ServiceName'], stepQuantity: [], across: null, columns: [], show: 'table', basis: 'charge' },
  ...more,
})
/** As they come: a packed answer has typed arrays, which JSON has not. */
const packed = (questions: Question[]) => ({
  answers: answersPacked(cube, questions).map(answer => {
    const plain = <T extends { codes: ArrayLike<number> }>(column: T) => ({ ...column, codes: Array.from(column.codes) })
    const { rows } = answer
    return {
      ...answer,
      rows: { ...rows, splits: rows.splits.map(plain), currencies: plain(rows.currencies), starts: rows.starts && plain(rows.starts) },
    }
  }),
  revision: 1,
})
const answers = ({ body }: { body: unknown }) => ({ body: packed((body as { questions: Question[] }).questions) })

beforeEach(() => {
  vi.unstubAllGlobals()
  setActivePinia(createPinia())
  useData().facts = facts
})

it('shows the total, a day, rows, course and the part of a day, each of its own days and currency', async () => {
  const log = answering({ 'POST spend/answers': answers })
  const spend = useSpend()
  await spend.load(sentence(), days)
  expect(spend.problem).toBeNull()
  expect(log).toHaveLength(1)
  expect([spend.currency, spend.total, spend.totals]).toEqual([
    ...['EUR', '30'],
    [
      { currency: 'EUR', amount: '30' },
      { currency: 'USD', amount: '3' },
    ],
  ])
  // 12 over the four days of «near», 18 over the five of «far»; the first five days of October had 108, of «near» four of them: 8
  expect([spend.perDay, spend.totalBefore]).toEqual(['6.6', '8'])
  expect(spend.rows.map(({ label, amount, before }) => [label, amount, before])).toEqual([
    ['Servers', '27', null],
    ['Disks', '5', '8'],
    ['no service', '-2', null],
  ])
  expect(spend.partDay).toEqual({ day: '2026-11-06', totals: [{ currency: 'EUR', amount: '1' }] })
  expect(spend.starts).toEqual(['01', '02', '03', '04', '05', '06'].map(day => `2026-11-${day}`))
  expect(spend.series.map(({ label, hue, amounts }) => [label, hue, amounts])).toEqual([
    ['Servers', 0, ['0', '0', '0', '7', '20', '1']],
    ['Disks', 1, ['5', '0', '0', '0', '0', '0']],
    ['no service', null, ['0', '0', '0', '0', '-2', '0']],
  ])
  expect([spend.hueOf('ServiceName', 'Disks'), spend.hueOf('RegionId', 'Disks'), spend.hueOf('ServiceName', 'none')]).toEqual([
    1,
    null,
    null,
  ])
  expect(spend.lagging).toEqual([{ source: 'near', lastDay: '2026-11-04', days: 1 }])
  expect(spend.columns[0]).toMatchObject({ dimension: 'ServiceName', of: null, unit: 'EUR', total: '30' })
  expect(spend.loading).toBe(false)
})

it('what is asked later is shown, whichever answer comes first', async () => {
  const waiting: (() => void)[] = []
  answering({ 'POST spend/answers': asked => new Promise(resolve => waiting.push(() => resolve(answers(asked)))) })
  const spend = useSpend()
  const first = spend.load(sentence(), days)
  const second = spend.load(sentence({ keep: { ServiceName: ['Disks'] } }), days)
  await vi.waitFor(() => expect(waiting).toHaveLength(2))
  waiting[1]!()
  await second
  expect([spend.total, spend.loading]).toEqual(['5', false])
  waiting[0]!()
  await first
  expect([spend.total, spend.shown!.keep, spend.problem]).toEqual(['5', { ServiceName: ['Disks'] }, null])
})

it('a refusal is said, and what was shown stays', async () => {
  const spend = useSpend()
  answering({ 'POST spend/answers': answers })
  await spend.load(sentence(), days)
  answering({ 'POST spend/answers': () => refusal(422, 'no-such-dimension', 'Nothing is called that.') })
  await spend.load(sentence({ splitBy: ['Nothing'] }), days)
  expect([spend.problem!.detail, spend.shown!.splitBy, spend.total, spend.loading]).toEqual([
    ...['Nothing is called that.', ['ServiceName'], '30', false],
  ])
})

it('a currency that is chosen is shown; values to choose from are those under the other conditions, of every currency', async () => {
  const log = answering({ 'POST spend/answers': answers })
  const spend = useSpend()
  await spend.load(sentence({ currency: 'USD', keep: { ServiceName: ['Servers'] } }), days)
  expect([spend.currency, spend.total]).toEqual(['USD', '3'])
  const values = await spend.valuesOf('ServiceName')
  expect((log.at(-1)!.body as { questions: Question[] }).questions[0]!.keep).toEqual({})
  expect(values.map(({ label, amount }) => [label, amount])).toEqual([
    ['Servers', '3'],
    ['Disks', '0'],
    ['no service', '0'],
  ])
})

it('SKUs are asked about once, until what is said of them has changed', async () => {
  const words = { words: 'Small server', charged: 'use' as const }
  const log = answering({ 'POST rate-cards/describe': () => ({ body: { skus: { 'sku-1': words }, revision: 1 } }) })
  const skus = useSkuWords()
  await skus.learn(['sku-1', 'sku-1', null, undefined, 'sku-2'])
  await skus.learn(['sku-2', 'sku-1'])
  expect(log.map(({ body }) => body)).toEqual([{ skus: ['sku-1', 'sku-2'] }])
  expect(useSpend().labelOf('SkuId', 'sku-1', null)).toBe('Small server')
  expect([useSpend().labelOf('SkuId', 'constructor', null), useSpend().labelOf('SkuId', 'sku-1', 'its name')]).toEqual([
    ...['constructor', 'its name'],
  ])
  skus.forget('sku-1')
  expect(skus.words['sku-1']).toBeUndefined()
  await skus.learn(['sku-1'])
  expect(log).toHaveLength(2)
})
