import fc from 'fast-check'
import { expect, it } from 'vitest'
import { findBlindSpots } from '../../../core/estimate/blind-spots'
import { componentKinds, findKind, searchKinds } from '../../../core/estimate/components'
import { completeInputs, inputSchema, usualInputs } from '../../../core/estimate/components/kind'
import { readEstimate, writeEstimate } from '../../../core/estimate/estimate-file'
import { priceEstimate } from '../../../core/estimate/price-estimate'
import { paybackMonths } from '../../../core/estimate/ways-to-pay'
import { Decimal } from '../../../core/money/decimal'
import { evaluate, type Working } from '../../../core/working/working'
import { brackwaterCard, larkfieldCard } from '../../../demo/rate-cards'
import { testCard, testEstimate } from '../../support/test-card'

const number = (max: number) => fc.integer({ min: 0, max }).map(String)
const component = fc.oneof(
  fc.record({ hoursPerMonth: number(744), count: number(50), pays: fc.constantFrom('on-demand', '3 years, all upfront', '1 year, none upfront') }).map(inputs => ['server', { size: 'small', ...inputs }] as [string, Record<string, string>]),
  fc.record({ storageGb: number(60_000).map(n => String(Number(n) + 1)), count: number(20) }).map(inputs => ['disk', { class: 'plain', ...inputs }] as [string, Record<string, string>]),
  fc.record({ storageGb: number(90_000), writes: number(1_000_000), reads: number(1_000_000) }).map(inputs => ['object-storage', { class: 'ready', ...inputs }] as [string, Record<string, string>]),
  number(50_000).map(sentGb => ['internet-transfer', { sentGb }] as [string, Record<string, string>]),
)
const estimate = fc.record({ components: fc.array(component, { maxLength: 8 }), useFreeAllowance: fc.boolean(), discountPercent: fc.constantFrom('0', '12.5'), taxPercent: fc.constantFrom('0', '25') })
  .map(({ components, ...more }) => testEstimate(components, more))

it('totals are the sum of the rows, and every Workings evaluates to its figure', () => {
  fc.assert(fc.property(estimate, (e) => {
    const priced = priceEstimate(e, testCard)
    expect(priced.unpriced).toBe(0)
    for (const name of ['upfront', 'monthly', 'effectiveMonthly', 'firstYear'] as const) {
      const rows = priced.components.reduce((n, c) => n.plus(c.chosen![name]), new Decimal(0))
      const taxed = rows.plus(rows.times(e.taxPercent).times('0.01'))
      expect(new Decimal(priced.totals[name]).minus(taxed).abs().lt('1e-15')).toBe(true)
      expect(evaluate(priced.totalWorkings[name]).toFixed()).toBe(priced.totals[name])
      for (const c of priced.components) for (const way of c.ways) expect(evaluate(way.workings[name]).toFixed()).toBe(way[name])
    }
  }))
})

it('costs more for more of anything', () => {
  fc.assert(fc.property(component, ([kind, inputs]) => {
    const cost = (i: Record<string, string>) => new Decimal(priceEstimate(testEstimate([[kind, i]]), testCard).totals.effectiveMonthly)
    for (const field of findKind(kind)!.fields) {
      if (field.type !== 'number' || Number(inputs[field.name]) >= field.max) continue
      expect(cost({ ...inputs, [field.name]: String(Number(inputs[field.name]) + 1) }).gte(cost(inputs))).toBe(true)
    }
  }))
})

it('goes out as JSON and comes in identical', () => {
  fc.assert(fc.property(estimate, (e) => {
    const file = writeEstimate(e)
    const back = readEstimate(file)
    expect(back).toEqual({ estimate: e })
    // however the database has ordered the inputs meanwhile
    const shuffled = structuredClone(e)
    for (const c of shuffled.components) c.inputs = Object.fromEntries(Object.entries(c.inputs).reverse())
    expect(writeEstimate(shuffled)).toBe(file)
  }))
})

it('says why a file is no estimate', () => {
  expect(readEstimate('{')).toEqual({ problems: ['it is not a JSON document'] })
  expect(readEstimate('[]')).toEqual({ problems: [expect.stringContaining('the file')] })
  expect(readEstimate(JSON.stringify({ ...testEstimate([]), discountPercent: '101' }))).toEqual({ problems: ['discountPercent: a percentage from 0 to 100'] })
})

it('puts every way to pay side by side', () => {
  const { ways } = priceEstimate(testEstimate([['server', { size: 'steady', count: '2', hoursPerMonth: '220', pays: 'on-demand' }]]), testCard).components[0]!
  const [onDemand, allUpfront, noneUpfront] = ways
  expect(onDemand).toMatchObject({ way: 'on-demand', upfront: '0', monthly: '5394.4', effectiveMonthly: '5394.4', firstYear: '64732.8', wholeTerm: null, breakEvenHours: null })
  expect(allUpfront).toMatchObject({ way: '3 years, all upfront', upfront: '4000', monthly: '0', firstYear: '4000', wholeTerm: '4000' })
  // a commitment is charged for all 730 hours: at 220 hours it costs more than on-demand
  expect(noneUpfront).toMatchObject({ way: '1 year, none upfront', upfront: '0', monthly: '11198.2', effectiveMonthly: '11198.2', firstYear: '134378.4', wholeTerm: '134378.4' })
  expect(new Decimal(noneUpfront!.breakEvenHours!).round(0).toFixed()).toBe('457')
  expect(paybackMonths(allUpfront!.workings, onDemand!.workings)!.round(4).toFixed()).toBe('0.7415')
  expect(paybackMonths(noneUpfront!.workings, onDemand!.workings)).toBeNull()
})

it('breaks even where both prices meet', () => {
  fc.assert(fc.property(fc.integer({ min: 1, max: 40 }), (count) => {
    const { ways } = priceEstimate(testEstimate([['server', { size: 'small', count: String(count), hoursPerMonth: '730', pays: 'on-demand' }]]), testCard).components[0]!
    for (const way of ways.slice(1)) {
      const onDemandAtBreakEven = new Decimal(way.breakEvenHours!).times('0.0116').times(count)
      expect(onDemandAtBreakEven.minus(way.effectiveMonthly).abs().lt('1e-12')).toBe(true)
    }
  }))
})

it('takes the discount off the list price and puts the tax on the end', () => {
  const { totals } = priceEstimate(testEstimate([['disk', { class: 'plain', storageGb: '100', count: '1' }]], { discountPercent: '10', taxPercent: '25' }), testCard)
  expect(totals.monthly).toBe('9')
})

it('shares the free allowance among rows, and only when asked to', () => {
  const rows: [string, Record<string, string>][] = [['internet-transfer', { sentGb: '60' }], ['internet-transfer', { sentGb: '60' }]]
  const monthly = (useFreeAllowance: boolean) => priceEstimate(testEstimate(rows, { useFreeAllowance }), testCard).components.map(c => c.chosen!.monthly)
  expect(monthly(false)).toEqual(['5.4', '5.4'])
  expect(monthly(true)).toEqual(['0', '1.8'])
})

it('says what does not fit, and counts such a row as nothing', () => {
  const priced = priceEstimate(testEstimate([['server', { size: 'small', count: '1.5' }], ['disk', { class: 'gold' }], ['teleport', {}], ['internet-transfer', { sentGb: '-1' }], ['server', { size: 'small', hoursPerMonth: '800' }]]), testCard)
  expect(priced.unpriced).toBe(5)
  expect(priced.components.map(c => Object.values(c.problems)[0])).toEqual([
    'count must be a whole number', expect.stringContaining('«gold» is not offered here'), expect.stringContaining('teleport'), expect.stringContaining('must be from 0'), expect.stringContaining('must be from 0 to 744 h'),
  ])
  expect(priced.totals.monthly).toBe('0')
})

it('every kind starts with inputs that fit and can be priced, on every card and region', () => {
  for (const card of [brackwaterCard, larkfieldCard]) {
    for (const { id } of card.regions) {
      for (const kind of componentKinds) {
        const inputs = usualInputs(kind, card, id)
        expect(inputSchema(kind, card, id).safeParse(inputs).success).toBe(true)
        expect(completeInputs(kind, {}, card, id)).toEqual(inputs)
        expect(kind.price(inputs, { card, region: id, monthHours: 730, countFreeAllowance: false, drawn: new Map() }).ok).toBe(true)
      }
    }
  }
})

it('finds components by plain words', () => {
  expect(searchKinds('outgoing traffic')[0]?.kind).toBe('internet-transfer')
  expect(searchKinds('disk')[0]?.kind).toBe('disk')
  expect(searchKinds('bucket')[0]?.kind).toBe('object-storage')
  expect(searchKinds('spaceship')).toEqual([])
  expect(searchKinds('')).toHaveLength(componentKinds.length)
})

it('names blind spots until they are filled or dismissed', () => {
  const server: [string, Record<string, string>] = ['server', { size: 'small', count: '2' }]
  const ids = (e: Parameters<typeof findBlindSpots>[0]) => findBlindSpots(e).map(s => s.id)
  expect(ids(testEstimate([]))).toEqual([])
  expect(ids(testEstimate([server]))).toEqual(['no-disk', 'no-outgoing-transfer'])
  expect(ids(testEstimate([server, ['disk', {}]]))).toEqual(['no-outgoing-transfer'])
  expect(ids(testEstimate([server, ['disk', {}], ['internet-transfer', {}]]))).toEqual([])
  expect(ids(testEstimate([server], { dismissed: [{ blindSpot: 'no-disk', reason: 'starts from the network' }] }))).toEqual(['no-outgoing-transfer'])
  expect(findBlindSpots(testEstimate([server]))[0]!.add.inputs.count).toBe('2')
})

it('has no rate in its Workings that is not on the card', () => {
  const sources = (w: Working): string[] => w.op === 'input' ? w.source ? [w.source] : [] : w.parts.flatMap(sources)
  const { ways } = priceEstimate(testEstimate([['server', { size: 'small', count: '1', hoursPerMonth: '730', pays: 'on-demand' }]]), testCard).components[0]!
  for (const way of ways) expect(sources(way.workings.effectiveMonthly).every(s => testCard.prices.some(p => p.sku === s))).toBe(true)
})
