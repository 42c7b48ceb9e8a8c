// Prices that people of the trade work out by hand. Common practice, no source; on the pricing code with a test card.
import { expect, it } from 'vitest'
import { Decimal } from '../../core/money/decimal'
import { roundToMinor } from '../../core/money/rounding'
import { ESTIMATE_MONTH_HOURS, hoursOfMonth } from '../../core/time/day'
import { evaluate } from '../../core/working/working'
import { findKind } from '../../core/estimate/components'
import { usualValue } from '../../core/estimate/components/field'
import { runHelper } from '../../core/estimate/helpers'
import { callsFromSchedule } from '../../core/estimate/helpers/calls-from-schedule'
import type { StoredUplift } from '../../core/uplift/uplift-set'
import { priceTest, testCard, testEstimate, testPrices } from '../support/test-card'

const price = (...components: [string, Record<string, string>][]) => priceTest(testEstimate(components))
const cents = (text: string) => roundToMinor(new Decimal(text), 'EUR').toFixed(2)

const server: [string, Record<string, string>] = ['server', { size: 'small', hoursPerMonth: '730', count: '1', pays: 'on-demand' }]
const disk: [string, Record<string, string>] = ['disk', { class: 'plain', storageGb: '8', count: '1' }]
const transfer: [string, Record<string, string>] = ['internet-transfer', { sentGb: '500' }]

it('a month is 730 hours, October has 744', () => {
  expect(ESTIMATE_MONTH_HOURS).toBe(8760 / 12)
  expect(hoursOfMonth('2026-10')).toBe(744)
})

it('0.0116 an hour is 8.47 a month; with 8 GB of disk 0.64 and 500 GB out 45.00 it is 54.11', () => {
  expect(cents(price(server).totals.monthly)).toBe('8.47')
  expect(cents(price(disk).totals.monthly)).toBe('0.64')
  expect(cents(price(transfer).totals.monthly)).toBe('45.00')
  expect(cents(price(server, disk, transfer).totals.monthly)).toBe('54.11')
})

it('data out is several times the machine', () => {
  expect(Number(price(transfer).totals.monthly) / Number(price(server).totals.monthly)).toBeGreaterThan(5)
})

it('136 upfront over 36 months is 3.78 a month, 2 000 is 55.56', () => {
  const effective = (size: string) =>
    cents(
      priceTest(testEstimate([['server', { size, hoursPerMonth: '730', count: '1', pays: '3 years, all in advance' }]])).totals
        .effectiveMonthly,
    )
  expect(effective('small')).toBe('3.78')
  expect(effective('steady')).toBe('55.56')
})

it('12.26 on-demand against 7.67 committed breaks even at 457 hours a month; at 220 hours the commitment costs more', () => {
  const { ways } = price(['server', { size: 'steady', hoursPerMonth: '220', count: '1', pays: 'on-demand' }]).components[0]!
  const committed = ways.find(w => w.way === '1 year, paid monthly')!
  expect(new Decimal(committed.breakEvenHours!).round(0).toFixed()).toBe('457')
  expect(Number(committed.effectiveMonthly)).toBeGreaterThan(Number(ways[0]!.monthly))
})

it('52 servers a day at 0.028 are 34.94, in a month of 744 hours 1 083.26', () => {
  const hours = (h: string, month: string | null) =>
    cents(
      priceTest(testEstimate([['server', { size: 'plain', hoursPerMonth: h, count: '52', pays: 'on-demand' }]], { month })).totals.monthly,
    )
  expect(hours('24', null)).toBe('34.94')
  expect(hours('744', '2026-10')).toBe('1083.26')
  // always on is all hours of the named month
  expect(hours('100 %', '2026-10')).toBe('1083.26')
})

it('100 GB of object storage at 0.023 are 2.30, and 10 000 writes at 0.005 a thousand 0.05', () => {
  const objects = (storageGb: string, writes: string) =>
    cents(price(['object-storage', { class: 'ready', storageGb, writes, reads: '0' }]).totals.monthly)
  expect(objects('100', '0')).toBe('2.30')
  expect(objects('0', '10000')).toBe('0.05')
})

it('three functions every hour make 2 232 calls in October, 2 190 in a 730-hour month; 0.6 s of 0.5 GB cost about a cent', () => {
  const calls = (month?: string) => {
    const made = runHelper(callsFromSchedule, { functions: '3', perHour: '1', ...(month && { month }) })
    return 'working' in made ? evaluate(made.working).toFixed() : ''
  }
  expect([calls('31 days, 744 hours'), calls()]).toEqual(['2232', '2190'])
  expect(3 * hoursOfMonth('2026-10')).toBe(2232)
  const gbSeconds = price(['functions', { calls: calls('31 days, 744 hours'), seconds: '0.6', memoryGb: '0.5' }]).components[0]!.chosen!
    .monthly
  // 669.6 GB-seconds at 0.0000166667; calls themselves cost nothing on the test card
  expect(Number(gbSeconds)).toBeCloseTo(669.6 * 0.0000166667, 12)
  expect(cents(gbSeconds)).toBe('0.01')
})

it('the first 100 GB out cost nothing only when one counts on them', () => {
  const out = (useFreeAllowance: boolean) => cents(priceTest(testEstimate([transfer], { useFreeAllowance })).totals.monthly)
  expect([out(false), out(true)]).toEqual(['45.00', '36.00'])
})

it('a fixed charge of 5 on something of 5 makes 10, and of 10 makes 15', () => {
  const care: StoredUplift = {
    id: 'x',
    name: 'Care',
    currency: 'EUR',
    interval: 'month',
    validFrom: '2026-01-01',
    who: 'x',
    setAt: '2026-01-01T00:00:00Z',
    attached: [{ to: 'kind', key: 'free-form', variant: null }],
    charges: [{ by: 'flat', label: 'care', amount: '5' }],
  }
  const line = (amount: string) => priceTest(testEstimate([['free-form', { amount }]]), { ...testPrices, uplifts: [care] }).totals.monthly
  expect([line('5'), line('10')]).toEqual(['10', '15'])
})

it("margin is a share of the customer's price: 82 of own cost at 18 % is 100", () => {
  expect(priceTest(testEstimate([['free-form', { amount: '82' }]], { marginPercent: '18' })).totals.monthly).toBe('100')
})

it('about 20 GB of profile for each desktop user, where the card says nothing else', () => {
  const field = findKind('desktop-fleet')!.fields.find(f => f.name === 'profileGb')!
  expect(usualValue(field, testCard, 'here')).toBe('20')
})
