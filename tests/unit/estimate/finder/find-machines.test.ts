import { expect, it } from 'vitest'
import { findMachines, reasonsOf, type Needs } from '../../../../core/estimate/finder/find-machines'
import { newEstimate } from '../../../../core/estimate/estimate'
import { brackwaterCard, larkfieldCard, pierHouseCard } from '../../../../demo/rate-cards'
import { demoUplifts } from '../../../../demo/reusable'
import { pricesOf } from '../../../support/test-card'

const prices = pricesOf(brackwaterCard, larkfieldCard, pierHouseCard)
const terms = { ...newEstimate('t', brackwaterCard, 'low-coast'), rates: [{ from: 'USD', rate: '0.92', day: '2026-11-02' }] }
const needs: Needs = {
  vcpu: 6,
  memoryGb: 24,
  architecture: '',
  system: 'open, no licence',
  host: 'shared host',
  diskGb: '0',
  hoursPerMonth: '730',
  count: '2',
  places: [],
  residencies: [],
}
const find = (more: Partial<Needs> = {}, way: Parameters<typeof findMachines>[3] = 'on-demand') =>
  findMachines({ ...needs, ...more }, prices, terms, way)

it('finds all that fits, everywhere, cheapest first, as looking through every card by hand does', () => {
  const { offers, rejected } = find()
  const byHand = [...prices.cards.values()]
    .flatMap(card =>
      card.prices
        .filter(p => p.meter === 'server-hour')
        .flatMap(line => {
          const size = card.serverSizes.find(s => s.size === line.variant)!
          return size.vcpu >= 6 && size.memoryGb >= 24 ? [Number(line.tiers[0]!.price) * 1460 * (card.currency === 'USD' ? 0.92 : 1)] : []
        }),
    )
    .sort((a, b) => a - b)
  const costs = offers.map(o => Number(o.ways[0]!.effectiveMonthly))
  expect(costs.length).toBe(byHand.length)
  costs.forEach((cost, i) => expect(cost).toBeCloseTo(byHand[i]!, 8))
  expect(rejected.find(r => r.size === 'otter-4x16')!.why).toBe('4 vCPU are too few')
  expect(offers.length + rejected.length).toBe([...prices.cards.values()].reduce((n, c) => n + c.regions.length * c.serverSizes.length, 0))
})

it('rules out by architecture, system, host, region and residency, and says why', () => {
  expect(find({ architecture: 'arm64' }).offers.every(o => o.size.startsWith('teal'))).toBe(true)
  const licensed = find({ system: 'Thrumwood Server' })
  expect(licensed.offers.some(o => o.size.startsWith('teal'))).toBe(false)
  expect(licensed.rejected.find(r => r.size === 'teal-8x32')!.why).toContain('does not run Thrumwood Server')
  expect(licensed.rejected.some(r => r.provider === 'Pier House DC' && r.why.includes('does not run'))).toBe(true)
  expect(find({ host: 'dedicated host' }).offers.length).toBeGreaterThan(0)
  expect(new Set(find({ places: ['Larkfield Compute/lk-alpha'] }).offers.map(o => o.region))).toEqual(new Set(['lk-alpha']))
  const near = find({ residencies: ['Northern Isles'] })
  expect(new Set(near.offers.map(o => o.region))).toEqual(new Set(['north-fjord', 'low-coast', 'lk-alpha', 'pier-house']))
  expect(near.rejected.some(r => r.why === 'data would lie in Eastern Shores')).toBe(true)
})

it('adds the cheapest disk that the size takes, and orders by the way to pay that was asked for', () => {
  const [first] = find({ diskGb: '100' }).offers
  expect(first!.diskClass).toBe('plain')
  const committed = find({}, '3 years, all in advance').offers.filter(o => o.ways.some(w => w.way === '3 years, all in advance'))
  const costs = committed.map(o => Number(o.ways.find(w => w.way === '3 years, all in advance')!.effectiveMonthly))
  expect(costs).toEqual([...costs].sort((a, b) => a - b))
})

it("shows the organisation's uplifts in the price", () => {
  const own = { ...prices, uplifts: demoUplifts.map(u => ({ ...u, who: 'x', setAt: '2026-01-01T00:00:00Z' })) }
  const big = { ...needs, vcpu: 16, memoryGb: 128, places: ['Brackwater Cloud/low-coast'] }
  const cost = (p: typeof prices) =>
    Number(findMachines(big, p, terms, 'on-demand').offers.find(o => o.size === 'heron-16x128')!.ways[0]!.effectiveMonthly)
  expect(cost(own)).toBeCloseTo(cost(prices) * 1.02, 8)
})

it('tells each reason once with what it rules out, the one that rules most out first', () => {
  const at = (why: string, size: string | null, region: string) => ({ provider: 'P', region, size, why })
  expect(
    reasonsOf([
      at('the region is ruled out', null, 'west'),
      at('2 vCPU are too few', 'a-2', 'east'),
      at('2 vCPU are too few', 'a-2', 'north'),
      at('2 vCPU are too few', 'b-2', 'east'),
    ]),
  ).toEqual([
    { reason: '2 vCPU are too few', list: ['a-2', 'b-2'] },
    { reason: 'the region is ruled out', list: ['west'] },
  ])
})
