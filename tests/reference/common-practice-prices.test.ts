// Prices that people of the trade work out by hand. Common practice, no source; on the pricing code with a test card.
import { expect, it } from 'vitest'
import { Decimal } from '../../core/money/decimal'
import { roundToMinor } from '../../core/money/rounding'
import { ESTIMATE_MONTH_HOURS, hoursOfMonth } from '../../core/time/day'
import { evaluate, input, multiply } from '../../core/working/working'
import { priceTest, testEstimate } from '../support/test-card'

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
  const effective = (size: string) => cents(priceTest(testEstimate([['server', { size, hoursPerMonth: '730', count: '1', pays: '3 years, all upfront' }]])).totals.effectiveMonthly)
  expect(effective('small')).toBe('3.78')
  expect(effective('steady')).toBe('55.56')
})

it('12.26 on-demand against 7.67 committed breaks even at 457 hours a month; at 220 hours the commitment costs more', () => {
  const { ways } = price(['server', { size: 'steady', hoursPerMonth: '220', count: '1', pays: 'on-demand' }]).components[0]!
  const committed = ways.find(w => w.way === '1 year, none upfront')!
  expect(new Decimal(committed.breakEvenHours!).round(0).toFixed()).toBe('457')
  expect(Number(committed.effectiveMonthly)).toBeGreaterThan(Number(ways[0]!.monthly))
})

it('52 servers a day at 0.028 are 34.94, in a month of 744 hours 1 083.26', () => {
  const hours = (h: string) => cents(price(['server', { size: 'plain', hoursPerMonth: h, count: '52', pays: 'on-demand' }]).totals.monthly)
  expect(hours('24')).toBe('34.94')
  expect(hours('744')).toBe('1083.26')
})

it('100 GB of object storage at 0.023 are 2.30, and 10 000 writes at 0.005 a thousand 0.05', () => {
  const objects = (storageGb: string, writes: string) => cents(price(['object-storage', { class: 'ready', storageGb, writes, reads: '0' }]).totals.monthly)
  expect(objects('100', '0')).toBe('2.30')
  expect(objects('0', '10000')).toBe('0.05')
})

it('three functions every hour make 2 232 calls in October, 2 190 in a 730-hour month; 0.6 s of 0.5 GB cost about a cent', () => {
  expect(3 * hoursOfMonth('2026-10')).toBe(2232)
  expect(3 * ESTIMATE_MONTH_HOURS).toBe(2190)
  const working = multiply('functions', [input('calls', 2232), input('seconds', '0.6'), input('GB', '0.5'), input('price', '0.0000166667')])
  expect(cents(evaluate(working).toFixed())).toBe('0.01')
})
