import fc from 'fast-check'
import { expect, it } from 'vitest'
import { periodText } from '../../../shared/words/periods'
import { charts, rollingPeriods, withoutValue, withValue, type Sentence } from '../../../core/spend/sentence'
import { comparedPeriod, reachInto, resolvePeriod } from '../../../core/spend/sentence-period'
import { readSentence, writeSentence } from '../../../core/spend/sentence-address'
import { measures } from '../../../core/spend/question'
import { tableColumns } from '../../../core/spend/table'
import { grains } from '../../../core/time/grain'

const days = { firstDay: '2025-11-01', lastDay: '2026-11-23', sources: {} }
const dimension = fc.constantFrom(
  'ServiceName',
  'SubAccountName',
  'Tags/team',
  'x_ProjectCode',
  'Container/2',
  'SkuPriceDetails/InstanceType',
  'ChargedFor',
)
const text = fc.string({ minLength: 1, maxLength: 12 }).filter(t => t.trim() !== '')
const period = fc.constantFrom({ start: '2026-01-01', end: '2026-07-01' }, { start: '2026-11-17', end: '2026-11-18' })
const narrowing = fc
  .dictionary(dimension, fc.uniqueArray(fc.oneof(text, fc.constant(null)), { minLength: 1, maxLength: 3 }), { maxKeys: 3 })
  .map(n => ({ ...n }))
const anySentence: fc.Arbitrary<Sentence> = fc.record({
  measure: fc.constantFrom(...measures),
  splitBy: fc.uniqueArray(dimension, { maxLength: 4 }),
  grain: fc.constantFrom(...grains),
  period: fc.oneof(fc.constantFrom(...rollingPeriods), period),
  against: fc.oneof(fc.constantFrom('before' as const, 'year' as const), period),
  keep: narrowing,
  leaveOut: narrowing,
  conditions: fc.array(
    fc.oneof(
      fc.record({ dimension, keep: fc.boolean(), contains: text }),
      fc.record({ dimension, keep: fc.boolean(), above: fc.constantFrom('100', '0.5') }),
    ),
    { maxLength: 2 },
  ),
  currency: fc.constantFrom(null, 'USD'),
  reportCurrency: fc.constantFrom(null, 'EUR'),
  chart: fc.constantFrom(...charts),
  largest: fc.integer({ min: 1, max: 30 }),
  steps: fc.array(fc.record({ dimension, value: fc.oneof(text, fc.constant(null)) }), { maxLength: 3 }),
  stepOrder: fc.uniqueArray(dimension, { minLength: 1, maxLength: 5 }),
  stepQuantity: fc.uniqueArray(fc.integer({ min: 0, max: 4 }), { maxLength: 3 }),
  across: fc.oneof(fc.constant(null), fc.constant('start'), dimension),
  columns: fc.uniqueArray(fc.constantFrom(...tableColumns)),
  show: fc.constantFrom('table' as const, 'comparison' as const),
  basis: fc.constantFrom('charge' as const, 'billing' as const),
})

it('the address holds all of the Sentence', () => {
  fc.assert(
    fc.property(anySentence, sentence => {
      expect(readSentence(writeSentence(sentence))).toEqual(sentence)
    }),
    { numRuns: 400 },
  )
})

it('what is as usual is not in the address, and what is wrong in it is as usual', () => {
  const usual = readSentence({})
  expect(usual).toMatchObject({ measure: 'effectiveCost', splitBy: ['ServiceName'], grain: 'day', period: 'this-month' })
  expect(writeSentence(usual)).toEqual({})
  expect(
    readSentence({
      from: '2026-02-30',
      to: 'x',
      by: 'BilledCost',
      keep: 'nonsense=1',
      each: 'minute',
      cost: 'free',
      where: 'x~',
      top: '900',
      period: 'yesterday',
      step: 'no',
      order: 'no',
      count: 'a',
      across: 'no',
      chart: 'pie',
      columns: 'no',
      in: 'euro',
    }),
  ).toEqual(usual)
})

it('rolling periods end with the data, and are compared with what went before', () => {
  expect(resolvePeriod('this-month', days)).toEqual({ start: '2026-11-01', end: '2026-11-24' })
  expect(resolvePeriod('last-month', days)).toEqual({ start: '2026-10-01', end: '2026-11-01' })
  expect(resolvePeriod('last-7', days)).toEqual({ start: '2026-11-17', end: '2026-11-24' })
  expect(resolvePeriod('twelve-months', days)).toEqual({ start: '2025-11-01', end: '2026-11-01' })
  expect(resolvePeriod('all', days)).toEqual({ start: '2025-11-01', end: '2026-11-24' })
  expect(comparedPeriod({ period: 'last-month', against: 'before' }, days)).toEqual({ start: '2026-09-01', end: '2026-10-01' })
  expect(comparedPeriod({ period: 'last-month', against: 'year' }, days)).toEqual({ start: '2025-10-01', end: '2025-11-01' })
  expect(comparedPeriod({ period: { start: '2024-02-29', end: '2024-03-01' }, against: 'year' }, days)).toEqual({
    start: '2023-02-28',
    end: '2023-03-01',
  })
})

it('adds and takes away conditions', () => {
  expect(withValue({ a: ['x'] }, 'a', 'x')).toEqual({ a: ['x'] })
  expect(withValue({ a: ['x'] }, 'a', null)).toEqual({ a: ['x', null] })
  expect(withoutValue({ a: ['x'], b: ['y'] }, 'a', 'x')).toEqual({ b: ['y'] })
})

it('says periods in words', () => {
  expect(periodText({ start: '2026-11-01', end: '2026-11-24' })).toBe('1 to 23 Nov 2026')
  expect(periodText({ start: '2026-10-01', end: '2026-11-01' })).toBe('October 2026')
  expect(periodText({ start: '2026-08-01', end: '2026-11-01' })).toBe('August 2026 to October 2026')
  expect(periodText({ start: '2026-11-17', end: '2026-11-18' })).toBe('17 Nov 2026')
})

it('says how far the data reaches into a period', () => {
  const days = { firstDay: '2025-11-01', lastDay: '2026-11-23', sources: {} }
  const reach = (start: string, end: string) => reachInto({ start, end }, days)
  expect([reach('2024-10-09', '2025-11-01'), reach('2026-11-24', '2026-12-01')]).toEqual(['none', 'none'])
  expect([reach('2025-10-31', '2025-11-02'), reach('2026-11-23', '2026-11-25')]).toEqual(['part', 'part'])
  expect([reach('2025-11-01', '2026-11-24'), reach('2026-02-01', '2026-03-01')]).toEqual(['whole', 'whole'])
})
