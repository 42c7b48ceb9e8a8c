// The list of estimates: what each costs, what it lacks, how it is found; and an estimate made of what ran.
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import { soughtText, useEstimateList } from '../../../app/stores/estimate-list'
import { estimateOfUse } from '../../../app/utils/estimate-from-use'
import type { Estimate } from '../../../core/estimate/estimate'
import { answering, refusal } from '../../support/answering'
import { testCard, testEstimate } from '../../support/test-card'

const disk = (more: Record<string, string> = {}): [string, Record<string, string>] => [
  'disk',
  { class: 'plain', storageGb: '100', count: '1', ...more },
]
const listed = (title: string, estimate: Estimate | null, more: object = {}) => ({
  ...{ id: title, version: 1, estimate, who: 'Ines Moldal', savedAt: '2026-11-01T00:00:00Z', name: null, title },
  ...{ problem: estimate ? null : 'its file is cut short', folder: '', putAway: false },
  ...more,
})
const entry = (validFrom: string, revision = 1) => ({
  ...{ provider: 'Testcloud', currency: 'EUR', validFrom, revision, prices: 10, regions: ['here'], who: 'Ines Moldal', loadedAt: '' },
})
const good = testEstimate([disk()])
const elsewhere = { ...good, provider: 'Gone Cloud', cards: [{ provider: 'Gone Cloud', date: '2026-01-01', revision: 2 }] }
const server = (estimates: object[], more: Parameters<typeof answering>[0] = {}) =>
  answering({
    'GET estimates': () => ({ body: { estimates } }),
    'GET rate-cards': () => ({ body: { cards: [entry('2026-02-01'), entry('2026-01-01')] } }),
    'GET uplifts': () => ({ body: { uplifts: [] } }),
    'GET rates': () => ({ body: { rates: [] } }),
    'GET rate-cards/Testcloud': () => ({ body: testCard }),
    'GET rate-cards/Gone%20Cloud': () => refusal(404, 'not-found', 'There is no such card.'),
    ...more,
  })

beforeEach(() => {
  vi.unstubAllGlobals()
  setActivePinia(createPinia())
})

it('says what each costs a month and lacks, or why it cannot be priced; one leaves the others as they are', async () => {
  const lacking = testEstimate([disk(), disk({ class: 'gold' })])
  server([listed('good', good), listed('lacking', lacking), listed('unread', null), listed('elsewhere', elsewhere)])
  const store = useEstimateList()
  await store.load()
  expect([...store.totals]).toEqual([
    ['good', { amount: '8.00 EUR', lacks: 0, why: '' }],
    ['lacking', { amount: '8.00 EUR', lacks: 1, why: '' }],
    ['unread', { amount: '', lacks: 0, why: 'cannot be read: its file is cut short' }],
    ['elsewhere', { amount: '', lacks: 0, why: 'rate card missing: Gone Cloud, 1 Jan 2026, revision 2' }],
  ])
  expect([store.hasNewerCard(good), store.hasNewerCard({ ...good, cards: [{ ...good.cards[0]!, date: '2026-02-01' }] })]).toEqual([
    true,
    false,
  ])
})

it('a body of a card is asked for once; folders stand in the order of the alphabet', async () => {
  const log = server([listed('a', good, { folder: 'winter' }), listed('b', good, { folder: 'autumn' }), listed('c', good)])
  const store = useEstimateList()
  await store.load()
  await store.load()
  expect(log.filter(({ path }) => path.startsWith('rate-cards/'))).toHaveLength(1)
  expect(store.folders).toEqual(['autumn', 'winter'])
})

it('filing leaves what is not said as it is', async () => {
  const log = server([listed('a', good, { folder: 'winter' })], { 'PUT estimates/a/filing': () => ({ body: { id: 'a' } }) })
  const store = useEstimateList()
  await store.load()
  await store.file(store.list![0]!, { putAway: true })
  expect(log.find(({ method }) => method === 'PUT')!.body).toEqual({ folder: 'winter', putAway: true })
})

it('an estimate is found by its names, people, places and sizes', () => {
  const text = soughtText(listed('Ticket scanner', testEstimate([['server', { size: 'steady' }]]), { folder: 'Autumn', name: 'agreed' }))
  for (const word of ['ticket scanner', 'autumn', 'ines', 'agreed', 'here', 'testcloud', 'steady']) expect(text).toContain(word)
  expect(soughtText(listed('unread', null))).toBe('unread  ines moldal ')
})

const line = (sku: string, quantity: string) => ({
  ...{ provider: 'Testcloud', region: 'here', service: 'test', sku, resource: 'r1', resourceName: 'web', quantity },
})
const used = (lines: object[], more: object = {}) => ({
  'POST spend/used': () => ({ body: { lines, listCost: [{ currency: 'EUR', amount: '8' }], notUsage: 0, revision: 1, ...more } }),
})

it('what ran becomes an estimate whose note says what it is of and what it lacks', async () => {
  const log = server([], used([line('T-disk-gb-month-plain', '100'), line('unknown', '5')], { notUsage: 2 }))
  const asked = { month: '2026-10', keep: { SubAccountName: ['live'] }, leaveOut: {}, called: 'live' }
  const made = await estimateOfUse(asked, [entry('2026-01-01'), entry('2026-01-01', 3)])
  expect(log[0]!.body).toEqual({ month: '2026-10', keep: { SubAccountName: ['live'] }, leaveOut: {} })
  expect(log[1]!.path).toBe('rate-cards/Testcloud?date=2026-11-01')
  expect([made.name, made.month, made.cards, made.components.length]).toEqual([
    ...['live, October 2026', '2026-10'],
    [{ provider: 'Testcloud', date: '2026-01-01', revision: 3 }],
    1,
  ])
  expect(made.note).toBe(
    'What ran in October 2026, live; at list price the bill says 8.00 EUR. 1 line of use has no price on a rate card and is left out. 2 charges that are no use (purchases, credits, corrections) are left out.',
  )
})

it('where nothing ran, or nothing of it has a price, that is said', async () => {
  const all = { month: '2026-10', keep: {}, leaveOut: {}, called: '' }
  server([], used([]))
  await expect(estimateOfUse(all, [])).rejects.toThrow('No usage is charged in October 2026.')
  server([], { ...used([line('unknown', '5')]), 'GET rate-cards/Testcloud': () => refusal(404, 'not-found', '') })
  await expect(estimateOfUse(all, [])).rejects.toThrow('No rate card is loaded that has the SKUs of Testcloud.')
  // any other failure is no missing card
  server([], { ...used([line('unknown', '5')]), 'GET rate-cards/Testcloud': () => refusal(500, 'fault', 'Something went wrong.') })
  await expect(estimateOfUse(all, [])).rejects.toThrow('Something went wrong.')
})
