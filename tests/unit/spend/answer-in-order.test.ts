// Which rows there are, in which order, and what a limit leaves: held against the plainest way, with amounts that are equal or nearly so.
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { scaled, scaledText, type Scaled } from '../../../core/money/scaled'
import { answer, answersPacked } from '../../../core/spend/answer'
import { unpackAnswer } from '../../../core/spend/packed'
import type { Answer, AnswerRow, CurrencyAmount, Measure, Question } from '../../../core/spend/question'
import { unitPriceText } from '../../../core/spend/figure'
import { cubeOf, valueOf, type PlainCharge } from '../../support/random-charges'

// so near each other that floats do not tell them apart
const near = ['1000000000', '1000000000.000000001', '-1000000000', '-1000000000.000000002', '1', '1', '2', '0', '-1', '0.5']
const maybe = (...values: string[]) => fc.constantFrom(...values, null)
const charge: fc.Arbitrary<PlainCharge> = fc
  .record({
    day: fc.constantFrom('2026-09-03', '2026-09-04', '2026-10-02'),
    hour: fc.constant(0),
    currency: fc.constantFrom('EUR', 'EUR', 'USD', 'CHF'),
    amount: fc.constantFrom(...near),
    list: fc.constantFrom(...near),
    quantity: fc.constantFrom('0', '1', '3', '2.5'),
    consumed: fc.constantFrom('0', '7', '0.000000000000001'),
    values: fc.record({
      ServiceName: maybe('a', 'b', 'c'),
      RegionId: maybe('x', 'y'),
      PricingUnit: maybe('GB', 'Hours'),
      ConsumedUnit: maybe('Requests', 'GB'),
    }),
    tags: fc.constant({}),
  })
  .map(one => one as PlainCharge)
const measure = fc.constantFrom<Measure>('billedCost', 'savedAgainstList', 'pricingQuantity', 'consumedQuantity', 'unitPrice')
const question: fc.Arbitrary<Question> = fc.record({
  measure,
  splitBy: fc.constantFrom<string[]>([], ['ServiceName'], ['RegionId', 'ServiceName']),
  grain: fc.constantFrom(null, 'day' as const, 'month' as const),
  start: fc.constant('2026-09-01'),
  end: fc.constant('2026-11-01'),
  keep: fc.constant({}),
  leaveOut: fc.constant({}),
  limit: fc.constantFrom(undefined, 1, 2, 3, 50),
})

type Group = { start: string | null; kind: string; names: (string | null)[]; sum: Scaled; by: Scaled }
const unitOf = (one: PlainCharge, column: string) => one.values[column] ?? 'no unit'
const kindOf: Record<string, (one: PlainCharge) => string> = {
  billedCost: one => one.currency,
  savedAgainstList: one => one.currency,
  pricingQuantity: one => unitOf(one, 'PricingUnit'),
  consumedQuantity: one => unitOf(one, 'ConsumedUnit'),
  unitPrice: one => `${one.currency} per ${unitOf(one, 'PricingUnit')}`,
}
const amountOf: Record<string, (one: PlainCharge) => Scaled> = {
  billedCost: one => scaled(one.amount),
  savedAgainstList: one => scaled(one.list!) - scaled(one.amount),
  pricingQuantity: one => scaled(one.quantity!),
  consumedQuantity: one => scaled(one.consumed!),
  unitPrice: one => scaled(one.amount),
}
const size = (n: Scaled) => (n < 0n ? -n : n)
const byText = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0)
/** None comes last. */
const byNames = (a: Pick<Group, 'kind' | 'names'>, b: Pick<Group, 'kind' | 'names'>): number =>
  byText(a.kind, b.kind) || a.names.map((name, i) => byText(name ?? '\uFFFF', b.names[i] ?? '\uFFFF')).find(order => order !== 0) || 0

/** The answer in the plainest way. */
function plainly(charges: PlainCharge[], q: Question): Answer {
  const groups = new Map<string, Group>()
  for (const one of charges) {
    const start = q.grain === null ? null : q.grain === 'day' ? one.day : `${one.day.slice(0, 7)}-01`
    const [kind, names] = [kindOf[q.measure]!(one), q.splitBy.map(d => valueOf(one, d))]
    const key = JSON.stringify([start, kind, names])
    const group = groups.get(key) ?? { start, kind, names, sum: 0n, by: 0n }
    groups.set(key, group)
    group.sum += amountOf[q.measure]!(one)
    group.by += scaled(one.quantity!)
  }
  const isPrice = q.measure === 'unitPrice'
  const all = [...groups.values()].filter(({ by }) => !isPrice || by !== 0n)
  const inOrder = all.sort((a, b) => byText(a.start ?? '', b.start ?? '') || (a.sum === b.sum ? byNames(a, b) : a.sum > b.sum ? -1 : 1))
  const combinations = new Map<string, Group>()
  const nameOf = ({ kind, names }: Group) => JSON.stringify([kind, names])
  for (const group of inOrder) {
    const known = combinations.get(nameOf(group)) ?? { ...group, sum: 0n }
    combinations.set(nameOf(group), { ...known, sum: known.sum + group.sum })
  }
  // of prices the first in the list are kept, of what adds the largest over the whole period
  const ranked = isPrice
    ? [...combinations.values()]
    : [...combinations.values()].sort((a, b) => (size(a.sum) === size(b.sum) ? byNames(a, b) : size(a.sum) > size(b.sum) ? -1 : 1))
  const kinds = [...new Set([...groups.values()].map(({ kind }) => kind))].sort()
  const kept = new Set(
    kinds.flatMap(kind =>
      ranked
        .filter(one => one.kind === kind)
        .slice(0, q.limit ?? Infinity)
        .map(nameOf),
    ),
  )
  const rowOf = ({ start, kind, names, sum, by }: Group): AnswerRow => ({
    values: Object.fromEntries(q.splitBy.map((d, i) => [d, names[i]!])),
    start,
    currency: kind,
    ...(isPrice ? { amount: unitPriceText(sum, by)!, cost: scaledText(sum), quantity: scaledText(by) } : { amount: scaledText(sum) }),
  })
  const totalsOf = (of: Group[]): CurrencyAmount[] =>
    kinds.flatMap(kind => {
      const own = of.filter(one => one.kind === kind)
      const [sum, by] = [own.reduce((n, one) => n + one.sum, 0n), own.reduce((n, one) => n + one.by, 0n)]
      const amount = isPrice ? unitPriceText(sum, by) : scaledText(sum)
      return own.length && amount !== null ? [{ currency: kind, amount }] : []
    })
  const left = inOrder.filter(group => !kept.has(nameOf(group)))
  const unpriced = isPrice ? [...groups.values()].filter(({ by, sum }) => by === 0n && sum !== 0n) : []
  return {
    totals: totalsOf([...groups.values()]),
    rows: inOrder.filter(group => kept.has(nameOf(group))).map(rowOf),
    rest: combinations.size > kept.size ? { count: combinations.size - kept.size, amounts: isPrice ? [] : totalsOf(left) } : null,
    ...(unpriced.length && {
      unpriced: unpriced.map(group => ({
        ...{ values: Object.fromEntries(q.splitBy.map((d, i) => [d, group.names[i]!])), start: group.start },
        ...{ currency: group.kind, amount: scaledText(group.sum) },
      })),
    }),
  }
}

/** Where the order is not said: of unpriced rows, and of prices whose costs are equal. */
const comparable = ({ unpriced, ...found }: Answer, q: Question) => ({
  ...found,
  ...(unpriced && {
    unpriced: unpriced.map(row => JSON.stringify([row.start, row.currency, q.splitBy.map(d => row.values[d]), row.amount])).sort(),
  }),
})

it('has the rows, the order, the totals and the rest that adding up one by one has', () => {
  fc.assert(
    fc.property(fc.array(charge, { maxLength: 60 }), question, (charges, q) => {
      if (q.measure === 'unitPrice' && hasEqualCosts(charges, q)) return
      expect(comparable(answer(cubeOf(charges), q), q)).toEqual(comparable(plainly(charges, q), q))
    }),
    { numRuns: 1500 },
  )
})

function hasEqualCosts(charges: PlainCharge[], q: Question): boolean {
  const { rows } = plainly(charges, { ...q, limit: undefined })
  const costs = rows.map(row => `${row.start} ${row.cost}`)
  return new Set(costs).size < costs.length
}

it('answers several questions at once as it answers each', () => {
  fc.assert(
    fc.property(fc.array(charge, { maxLength: 60 }), fc.array(question, { minLength: 2, maxLength: 5 }), (charges, questions) => {
      const cube = cubeOf(charges)
      expect(answersPacked(cube, questions).map(found => unpackAnswer(found))).toEqual(questions.map(q => answer(cube, q)))
    }),
    { numRuns: 200 },
  )
})

it('of thousands of values finds the largest over the whole period, credits too, each with all of its course', () => {
  // 3,000 resources; the largest are small on the first day
  const charges = Array.from({ length: 3000 }, (_, i): PlainCharge[] => {
    const one = (day: string, amount: string, currency = 'EUR') => ({
      ...{ day, hour: 0, currency, amount, tags: {} },
      values: { ResourceId: `r${i}`, RegionId: i % 2 ? 'x' : 'y' },
    })
    if (i === 1500) return [one('2026-09-03', '1'), one('2026-10-02', '500')]
    if (i === 1501) return [one('2026-09-03', '-600')]
    if (i === 1502) return [one('2026-09-03', '7', 'USD')]
    if (i === 1503) return [one('2026-09-03', '300'), one('2026-10-02', '-300')]
    return [one('2026-09-03', '2')]
  }).flat()
  const q: Question = {
    ...{ measure: 'billedCost', splitBy: ['ResourceId'], grain: 'month', start: '2026-09-01', end: '2026-11-01', keep: {}, leaveOut: {} },
    limit: 2,
  }
  const found = answer(cubeOf(charges), q)
  expect(found.rows.map(row => [row.start, row.currency, row.values.ResourceId, row.amount])).toEqual([
    ['2026-09-01', 'USD', 'r1502', '7'],
    ['2026-09-01', 'EUR', 'r1500', '1'],
    ['2026-09-01', 'EUR', 'r1501', '-600'],
    ['2026-10-01', 'EUR', 'r1500', '500'],
  ])
  expect(found.rest).toEqual({ count: 2997, amounts: [{ currency: 'EUR', amount: '5992' }] })
  expect(found.totals).toEqual([
    { currency: 'EUR', amount: '5893' },
    { currency: 'USD', amount: '7' },
  ])
  const kept = answer(cubeOf(charges), { ...q, keep: { RegionId: ['y'] }, limit: 1 })
  expect(kept.rows.map(row => row.values.ResourceId)).toEqual(['r1502', 'r1500', 'r1500'])
  // "above" is meant of all charges of a value
  const above = { ...q, conditions: [{ dimension: 'ResourceId', keep: true, above: '400' }] }
  expect(answer(cubeOf(charges), above).rows.map(row => [row.values.ResourceId, row.amount])).toEqual([
    ['r1500', '1'],
    ['r1500', '500'],
  ])
  const saved = answer(cubeOf(charges.map(one => ({ ...one, list: '2' }))), { ...q, measure: 'savedAgainstList', limit: 1 })
  expect(saved.rows.map(row => [row.start, row.currency, row.values.ResourceId, row.amount])).toEqual([
    ['2026-09-01', 'EUR', 'r1501', '602'],
    ['2026-09-01', 'USD', 'r1502', '-5'],
  ])
})
