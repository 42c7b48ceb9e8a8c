import { expect, it } from 'vitest'
import { Decimal } from '../../../core/money/decimal'
import { ANY, promisedSince, realisedSaving, type Charged } from '../../../core/opportunity/realised'

const charged = (
  sku: string,
  units: string,
  effective: string,
  more: { unit?: string; billed?: string; category?: string } = {},
): Charged => ({
  ...{ sku, unit: more.unit ?? 'Hours', category: more.category ?? 'Standard', units: new Decimal(units) },
  effective: new Decimal(effective),
  billed: new Decimal(more.billed ?? effective),
})
const seen = (...asked: Parameters<typeof realisedSaving>) => {
  const realised = realisedSaving(...asked)
  return realised && [realised.effective.toFixed(), realised.billed.toFixed()]
}

it('compares what was charged since with what as much use would have cost', () => {
  // a gateway of 0.0525 an hour, deleted after nine hours of a day
  const facts = { before: [charged('g', '168', '8.82')], daysBefore: 7, since: [charged('g', '9', '0.4725')], daysSince: 1 }
  expect(seen([{ sku: 'g', how: 'gone' }], facts)).toEqual(['0.7875', '0.7875'])
  expect(seen([{ sku: ANY, how: 'gone' }], facts)).toEqual(['0.7875', '0.7875'])
  expect(promisedSince(new Decimal('38.325'), 15).toFixed()).toBe('0.7875')
})

it('keeps SKUs and units apart: hours are not added to GB', () => {
  const before = [charged('db', '168', '84'), charged('gb', '7', '14', { unit: 'GB-Months' }), charged('other', '70', '7')]
  const since = [charged('db', '24', '12'), charged('gb', '1', '2', { unit: 'GB-Months' }), charged('other', '999', '99')]
  // asleep for half of two days: 24 of 48 hours at 0.50; storage goes on, and what nothing was done about does not matter
  expect(seen([{ sku: 'db', how: 'less' }], { before, daysBefore: 7, since, daysSince: 2 })).toEqual(['12', '12'])
})

it('of what was made cheaper takes the use that really was, under whichever SKU', () => {
  const before = [charged('old', '70', '7', { unit: 'GB-Months' })]
  // ten days, twice as much is kept: 200 GB-months at 0.10 would be 20, and were 8 under the new and 2 under the old
  const since = [charged('old', '20', '2', { unit: 'GB-Months' }), charged('new', '180', '8', { unit: 'GB-Months' })]
  const facts = { before, daysBefore: 7, since, daysSince: 10 }
  expect(seen([{ sku: 'old', how: 'cheaper' }], facts)).toEqual(['10', '10'])
  // what it brings in another unit counts against it
  const fetched = [...since, charged('fetch', '40', '4.5', { unit: 'GB' })]
  const realised = realisedSaving([{ sku: 'old', how: 'cheaper' }], { ...facts, since: fetched })!
  expect(realised.effective.toFixed()).toBe('5.5')
  expect(realised.lines.map(({ sku, counterfactual, actual }) => [sku, counterfactual.toFixed(), actual.toFixed()])).toEqual([
    ['old', '20', '10'],
    ['fetch', '0', '4.5'],
  ])
  // lines add to the whole
  const sum = realised.lines.reduce((total, line) => total.plus(line.counterfactual).minus(line.actual), new Decimal(0))
  expect(sum.eq(realised.effective)).toBe(true)
})

it('tells effective from billed cost: under a commitment nothing is billed for use, so nothing of that falls', () => {
  const facts = { before: [charged('s', '168', '70', { billed: '0' })], daysBefore: 7, since: [], daysSince: 7 }
  expect(seen([{ sku: 's', how: 'gone' }], facts)).toEqual(['70', '0'])
})

it('says nothing where the bill reaches no day since, or had nothing of it before', () => {
  const before = [charged('g', '168', '8')]
  expect(seen([{ sku: 'g', how: 'gone' }], { before, daysBefore: 7, since: [], daysSince: 0 })).toBeNull()
  expect(seen([{ sku: 'other', how: 'gone' }], { before, daysBefore: 7, since: [], daysSince: 3 })).toBeNull()
  expect(seen([{ sku: 'g', how: 'gone' }], { before: [charged('g', '0', '0')], daysBefore: 7, since: [], daysSince: 3 })).toBeNull()
})

it('counts what nobody uses of a commitment against what is seen, no more than was left free, shared by how much each left', () => {
  const before = [charged('s', '84', '42'), charged('s', '84', '21', { category: 'Committed', billed: '0' })]
  const of = (freed: string, freedInAll: string, unusedMore: string) => {
    const commitment = { id: 'C', freed: new Decimal(freed), freedInAll: new Decimal(freedInAll), unusedMore: new Decimal(unusedMore) }
    return realisedSaving([{ sku: 's', how: 'gone' }], { before, daysBefore: 7, since: [], daysSince: 7, commitments: [commitment] })!
  }
  expect(of('21', '21', '0')).toMatchObject({ unused: [], effective: new Decimal(63), billed: new Decimal(42) })
  expect(of('21', '63', '6').effective.toFixed()).toBe('61') // a third of 6
  expect(of('21', '63', '63').effective.toFixed()).toBe('42')
  expect(of('21', '63', '99').effective.toFixed()).toBe('42') // all of it, and others beside
  expect(of('0', '63', '99').effective.toFixed()).toBe('63')
  // what no commitment had covered leaves none free
  const standard = { before: [before[0]!], daysBefore: 7, since: [], daysSince: 7 }
  const commitments = [{ id: 'C', freed: new Decimal(21), freedInAll: new Decimal(21), unusedMore: new Decimal(21) }]
  expect(seen([{ sku: 's', how: 'gone' }], { ...standard, commitments })).toEqual(['42', '42'])
})

it('goes on to see what is paid by a commitment only since', () => {
  const before = [charged('s', '168', '84')]
  const since = [charged('s', '60', '30'), charged('s', '24', '6', { category: 'Committed', billed: '0' })]
  // asleep for half of the week: 84 hours would have been 84.00 in all, 36.00 were charged
  expect(seen([{ sku: 's', how: 'less' }], { before, daysBefore: 7, since, daysSince: 7 })).toEqual(['48', '54'])
})
