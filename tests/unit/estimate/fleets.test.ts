// Desktop fleets and what one commits to, by brute force over every hour of the month and by hand.
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { newEstimate, newRow } from '../../../core/estimate/estimate'
import { figureText, priceEstimate } from '../../../core/estimate/pricing/price-estimate'
import type { RateCard } from '../../../core/ratecard/rate-card'
import { brackwaterCard } from '../../../demo/rate-cards'
import { pricesOf } from '../../support/test-card'

// machines of 4 vCPU at 1.00 an hour, committed 0.60; file servers of 2 vCPU at 0.30, committed 0.20; all else costs nothing
const line = (
  meter: string,
  variant: string | null,
  unit: RateCard['prices'][number]['unit'],
  price: string,
  hourlyPrice?: string,
): RateCard['prices'][number] => ({
  sku: `${meter}-${variant}`,
  service: 's',
  meter,
  variant,
  region: 'r',
  unit,
  tiering: 'graduated',
  tiers: [{ from: '0', price }],
  ...(hourlyPrice && { commitments: [{ years: 1, paid: 'paid monthly', upfrontPrice: '0', hourlyPrice }] }),
})
const card: RateCard = {
  provider: 'F',
  currency: 'EUR',
  validFrom: '2026-01-01',
  regions: [{ id: 'r', name: 'R' }],
  serverSizes: [
    { size: 'desk', vcpu: 4, memoryGb: 16 },
    { size: 'files', vcpu: 2, memoryGb: 4 },
  ],
  prices: [
    line('server-hour', 'desk', 'Hours', '1', '0.6'),
    line('server-hour', 'files', 'Hours', '0.3', '0.2'),
    line('disk-gb-month', 'd', 'GB-Months', '0'),
    {
      ...line('desktop-user', null, 'Users', '0'),
      includes: { usersPerVcpuLittle: '8', usersPerVcpuUsual: '5', usersPerVcpuMuch: '2.5', usersPerVcpuMost: '1' },
    },
  ],
}
const fleet = (inputs: Record<string, string>) =>
  priceEstimate(
    { ...newEstimate('t', card, 'r'), components: [newRow('a', 'p', 'desktop-fleet', { size: 'desk', fileServer: 'files', ...inputs })] },
    pricesOf(card),
  ).rows[0]!
const ways = (inputs: Record<string, string>) =>
  Object.fromEntries(
    fleet(inputs).ways.map(way => [[way.way, way.commits].filter(Boolean).join(', '), Number(figureText(way.effectiveMonthly))]),
  )

it('offers every way for the machines of the quiet hours and for those of the busy hours, file servers committed too', () => {
  // 200 users, 80 % busy and 20 % quiet, 5 a vCPU: 160 sessions on machines of 20 are 8, 40 are 2; 50 h a week are 217.26 h, the rest
  // 512.74
  const busy = (730 * 50) / 168
  const hours = 8 * busy + 2 * (730 - busy)
  const files = 2 * 730
  const told = ways({ users: '200', busyPercent: '80', quietPercent: '20' })
  expect(told['on-demand']).toBeCloseTo(hours + files * 0.3, 8)
  expect(told['1 year, paid monthly, machines of the quiet hours']).toBeCloseTo(2 * 730 * 0.6 + 6 * busy + files * 0.2, 8)
  expect(told['1 year, paid monthly, machines of the busy hours']).toBeCloseTo(8 * 730 * 0.6 + files * 0.2, 8)
  expect(
    ways({ users: '200', busyPercent: '80', quietPercent: '20', commitTo: 'a number of machines', commitCount: '5' })[
      '1 year, paid monthly, a number of machines'
    ],
  ).toBeCloseTo(5 * 730 * 0.6 + 3 * busy + files * 0.2, 8)
  const cheapest = Object.entries(told).sort(([, a], [, b]) => a - b)[0]![0]
  expect(cheapest).toBe('1 year, paid monthly, machines of the quiet hours')
})

it('lets machines that are needed in every hour be committed to, also when nobody works in quiet hours or everybody always does', () => {
  // nobody in quiet hours: none is needed in every hour, but the eight of the busy hours may be committed to
  const asleep = ways({ users: '200', quietPercent: '0' })
  expect(asleep['1 year, paid monthly, machines of the busy hours']).toBeCloseTo(8 * 730 * 0.6 + 2 * 730 * 0.2, 8)
  expect(asleep['1 year, paid monthly, machines of the quiet hours']).toBeCloseTo((8 * 730 * 50) / 168 + 2 * 730 * 0.2, 8)
  const always = ways({ users: '200', hoursPerMonth: 'always on' })
  expect(always['on-demand']).toBeCloseTo(8 * 730 + 2 * 730 * 0.3, 8)
  expect(always['1 year, paid monthly, machines of the busy hours']).toBeCloseTo(8 * 730 * 0.6 + 2 * 730 * 0.2, 8)
})

it('is what counting hour by hour gives, whatever is committed', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 400 }),
      fc.integer({ min: 0, max: 100 }),
      fc.integer({ min: 0, max: 100 }),
      fc.integer({ min: 0, max: 40 }),
      fc.integer({ min: 0, max: 730 }),
      fc.constantFrom('little', 'usual', 'much', 'most'),
      fc.constantFrom('no', 'yes'),
      (users, busy, quiet, committed, hours, work, oneUp) => {
        const serves = [8, 5, 2.5, 1][Math.min(3, ['little', 'usual', 'much', 'most'].indexOf(work) + (oneUp === 'yes' ? 1 : 0))]!
        const machines = (share: number) => Math.ceil((users * share) / 100 / (4 * serves) - 1e-9)
        let onDemand = 0
        let withCommitment = 0
        for (let hour = 0; hour < 730; hour++) {
          const running = machines(hour < hours ? busy : quiet)
          onDemand += running
          withCommitment += committed * 0.6 + Math.max(0, running - committed)
        }
        const told = ways({
          users: String(users),
          busyPercent: String(busy),
          quietPercent: String(quiet),
          hoursPerMonth: String(hours),
          work,
          oneUp,
          commitTo: 'a number of machines',
          commitCount: String(committed),
        })
        expect(told['on-demand']).toBeCloseTo(onDemand + 438, 6)
        expect(told['1 year, paid monthly, a number of machines']).toBeCloseTo(withCommitment + 292, 6)
      },
    ),
    { numRuns: 60 },
  )
})

it('takes users per vCPU from the rate card until someone types it, and follows what they ask', () => {
  const serves = (inputs: Record<string, string>) => fleet(inputs).inputs.usersPerVcpu
  expect([
    serves({ work: 'little' }),
    serves({}),
    serves({ work: 'usual', oneUp: 'yes' }),
    serves({ work: 'most', oneUp: 'yes' }),
    serves({ work: 'usual', usersPerVcpu: '3' }),
  ]).toEqual(['8', '5', '2.5', '1', '3'])
  const brackwater = priceEstimate(
    { ...newEstimate('t', brackwaterCard, 'low-coast'), components: [newRow('a', 'p', 'desktop-fleet', { work: 'much' })] },
    pricesOf(brackwaterCard),
  ).rows[0]!
  expect(brackwater.inputs.usersPerVcpu).toBe('2.5')
})
