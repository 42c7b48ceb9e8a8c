import { beforeAll, describe, expect, it } from 'vitest'
import { allocationPlanSchema } from '../../../core/allocation/plan'
import { settleInSlices } from '../../../core/allocation/settle'
import { newEstimate } from '../../../core/estimate/estimate'
import { Decimal, decimalText } from '../../../core/money/decimal'
import { toEnd } from '../../../core/spend/slices'
import { hoursOfMonth } from '../../../core/time/day'
import { correctedDelivery, demoDeliveries } from '../../../demo/deliveries'
import type { FileCharge } from '../../../demo/focus-file'
import { brackwaterInventory, coveredServers, larkfieldInventory, runsOn } from '../../../demo/inventory'
import { laterPlan } from '../../../demo/later-plan'
import { allocationPlan } from '../../../demo/organisation'
import {
  bookingSpellings,
  demandStudy,
  expensiveTuesday,
  idleGateways,
  lateCorrection,
  nightPlan,
  recurringCommitment,
  refund,
  restatedMonth,
  sponsorCredit,
  taggingCampaign,
  teamSplit,
  upfrontPurchase,
} from '../../../demo/planted'
import { brackwaterCard } from '../../../demo/rate-cards'
import { cubeOf } from '../../support/random-charges'
import { priceTest, pricesOf, testRows } from '../../support/test-card'

const deliveries = demoDeliveries()
const kept = new Map<string, FileCharge[]>()
/** The charges of a month, of one source or all. */
function charges(month: string, source?: string): FileCharge[] {
  return deliveries
    .filter(d => d.month === month && (!source || d.source === source))
    .flatMap(d => {
      const list = kept.get(d.file) ?? [...d.charges()]
      kept.set(d.file, list)
      return list
    })
}
const sum = (list: FileCharge[], column: 'BilledCost' | 'EffectiveCost' = 'BilledCost') =>
  list.reduce((n, c) => n.plus(c[column]!), new Decimal(0))

describe('what is planted is there', () => {
  it("a sponsor's credit brings the telemetry account close to zero", () => {
    const account = charges('2026-10', 'Larkfield Compute').filter(c => c.SubAccountName === sponsorCredit.account)
    const usage = sum(account.filter(c => c.ChargeCategory === 'Usage'))
    expect(usage.gt(2000)).toBe(true)
    expect(sum(account).div(usage).lt('0.05')).toBe(true)
    expect(sum(account).gt(0)).toBe(true)
  })
  it('solvers that are planned to stand still at night run all day', () => {
    const solvers = charges('2026-10', 'Brackwater Cloud').filter(
      c => c.ResourceName?.startsWith(nightPlan.namesBegin) && c.PricingUnit === 'Hours',
    )
    expect(new Set(solvers.map(c => c.ResourceName)).size).toBeGreaterThan(1)
    expect(new Set(solvers.map(c => c.PricingQuantity))).toEqual(new Set(['24']))
  })
  it('one Tuesday a rehearsal searched the logs for hours', () => {
    const searched = charges('2026-11', 'Brackwater Cloud').filter(
      c => c.ResourceName === expensiveTuesday.resource && c.SkuMeter === 'searched, GB',
    )
    const sums = new Map<string, number>()
    for (const c of searched)
      sums.set(c.ChargePeriodStart!.slice(0, 10), (sums.get(c.ChargePeriodStart!.slice(0, 10)) ?? 0) + Number(c.BilledCost))
    const byDay = [...sums]
    const hours = searched
      .filter(c => c.ChargePeriodStart!.startsWith(expensiveTuesday.day))
      .map(c => Number(c.ChargePeriodStart!.slice(11, 13)))
    expect([Math.min(...hours), Math.max(...hours)]).toEqual([expensiveTuesday.from, expensiveTuesday.to - 1])
    const [day, cost] = byDay.reduce((a, b) => (b[1] > a[1] ? b : a))
    expect(day).toBe(expensiveTuesday.day)
    expect(new Date(day).getUTCDay()).toBe(2)
    expect(cost).toBeGreaterThan(1000)
    expect(byDay.filter(([d]) => d !== day).every(([, c]) => c < 20)).toBe(true)
  })
  it('gateways nobody uses go on costing', () => {
    for (const { name } of idleGateways) {
      const of = charges('2026-10', 'Brackwater Cloud').filter(c => c.ResourceName === name)
      expect(of).toHaveLength(31)
      expect(new Set(of.map(c => c.SkuMeter))).toEqual(new Set(['existing, hours']))
    }
    expect(charges('2026-03', 'Brackwater Cloud').some(c => c.ResourceName === idleGateways[0]!.name && c.SkuMeter === 'passed, GB')).toBe(
      true,
    )
  })
  it('the machines of the demand study lived for six days', () => {
    const study = charges('2026-08', 'Brackwater Cloud').filter(c => c.ResourceName?.startsWith('demand-study'))
    expect(new Set(study.map(c => c.ChargePeriodStart!.slice(0, 10))).size).toBe(6)
    expect(new Set(study.map(c => c.ResourceId)).size).toBe(demandStudy.machines)
  })
  it('tags begin with the campaign in June', () => {
    const june = charges('2026-06', 'Brackwater Cloud')
    expect(june.filter(c => c.ChargePeriodStart! < taggingCampaign && c.Tags)).toHaveLength(0)
    expect(june.filter(c => c.ChargePeriodStart! >= taggingCampaign && c.Tags).length).toBeGreaterThan(10_000)
  })
  it('one team is spelt four ways', () => {
    const teams = new Set(
      charges('2026-10', 'Brackwater Cloud').map(c => (c.Tags ? (JSON.parse(c.Tags) as { team?: string }).team : undefined)),
    )
    for (const spelling of bookingSpellings) expect(teams).toContain(spelling)
  })
  it("October's bill corrects September", () => {
    const corrections = charges(restatedMonth.billedIn, 'Brackwater Cloud').filter(c => c.ChargeClass === 'Correction')
    expect(corrections.length).toBeGreaterThan(10)
    expect(corrections.every(c => c.ChargePeriodStart!.startsWith(restatedMonth.corrected) && Number(c.BilledCost) < 0)).toBe(true)
  })
  it('a purchase upfront makes February large as billed, not as effective', () => {
    const purchase = charges('2026-02', 'Brackwater Cloud').filter(
      c => c.CommitmentDiscountId === upfrontPurchase.id && c.ChargeCategory === 'Purchase',
    )
    expect(purchase).toHaveLength(1)
    expect(Number(purchase[0]!.BilledCost)).toBeGreaterThan(10_000)
    expect(purchase[0]!.EffectiveCost).toBe('0')
  })
  it('a commitment is used in part since September', () => {
    const unused = (month: string) => charges(month, 'Brackwater Cloud').filter(c => c.CommitmentDiscountStatus === 'Unused')
    expect(unused('2026-08')).toHaveLength(0)
    expect(unused('2026-10')).toHaveLength(31)
    expect(Number(unused('2026-10')[0]!.PricingQuantity)).toBe(24 * (recurringCommitment.count - recurringCommitment.used))
  })
  it('seats were refunded, and there is tax', () => {
    expect(
      charges('2026-03', refund.provider)
        .filter(c => c.ChargeCategory === 'Adjustment')
        .map(c => c.BilledCost),
    ).toEqual(['-588'])
    expect(charges('2026-10', 'Lanternchart').filter(c => c.ChargeCategory === 'Tax')).toHaveLength(31)
  })
  it('a storm week brings a surge of bookings', () => {
    const sent = (from: string, to: string) =>
      sum(
        charges('2026-10', 'Brackwater Cloud').filter(
          c =>
            c.ServiceName === 'Outgoing transfer' &&
            c.SubAccountName === 'live-passenger' &&
            c.ChargePeriodStart! >= from &&
            c.ChargePeriodStart! < to,
        ),
      )
    expect(Number(sent('2026-10-14', '2026-10-17')) / Number(sent('2026-10-07', '2026-10-10'))).toBeGreaterThan(1.35)
  })
  it('about 5 % is unallocated, and in August about 12 %', () => {
    const share = (month: string) => {
      const cells = charges(month)
        .filter(c => c.BillingCurrency === 'EUR')
        .map(c => ({
          ...{ day: `${month}-01`, hour: 0, currency: 'EUR', amount: c.BilledCost!, billedIn: month },
          values: { SubAccountName: c.SubAccountName || null },
          tags: c.Tags ? (JSON.parse(c.Tags) as Record<string, string>) : {},
        }))
      const question = { month, measure: 'billedCost' as const, reportCurrency: null, rates: [] }
      const { proof } = toEnd(settleInSlices(cubeOf(cells), allocationPlan, question))
      expect(proof[0]!.equal).toBe(true)
      return Number(proof[0]!.unallocated) / Number(proof[0]!.bill)
    }
    expect(share('2026-10')).toBeGreaterThan(0.03)
    expect(share('2026-10')).toBeLessThan(0.065)
    expect(share('2026-08')).toBeGreaterThan(0.1)
    expect(share('2026-08')).toBeLessThan(0.14)
  })
})

describe('the bill follows from what ran', () => {
  beforeAll(() => void charges('2026-10', 'Brackwater Cloud'))

  it("re-pricing October's servers, disks and stores for its 744 hours gives what the bill says", () => {
    const month = '2026-10'
    const inventory = brackwaterInventory()
    const covered = new Set([
      ...coveredServers(inventory, recurringCommitment.size, recurringCommitment.region, recurringCommitment.count),
      ...coveredServers(inventory, upfrontPurchase.size, upfrontPurchase.region, upfrontPurchase.count),
    ])
    const wholeMonth = inventory.filter(r => runsOn(r, '2026-10-01') && runsOn(r, '2026-10-31') && !covered.has(r.id))
    let priced = 0
    for (const resource of wholeMonth) {
      const { use } = resource
      const inputs =
        use.kind === 'server'
          ? (['server', { size: use.size, hoursPerMonth: String(hoursOfMonth(month)), count: '1', pays: 'on-demand' }] as const)
          : use.kind === 'disk'
            ? (['disk', { class: use.variant, storageGb: String(use.gb), count: '1' }] as const)
            : null
      if (!inputs) continue
      const estimate = { ...newEstimate('October', brackwaterCard, resource.region), month, components: testRows([[inputs[0], inputs[1]]]) }
      const bill = sum(charges(month, 'Brackwater Cloud').filter(c => c.ResourceId === resource.id))
      expect(priceTest(estimate, pricesOf(brackwaterCard)).totals.monthly, resource.name).toBe(decimalText(bill))
      if (++priced >= 150) break
    }
    expect(priced).toBe(150)
  })

  it("re-pricing October's outgoing transfer in its tiers gives what the bill says", () => {
    const month = '2026-10'
    const sent = charges(month, 'Brackwater Cloud').filter(c => c.SkuMeter === 'sent out, GB' && c.RegionId === 'low-coast')
    const gb = sent.reduce((n, c) => n.plus(c.PricingQuantity!), new Decimal(0))
    const estimate = {
      ...newEstimate('October', brackwaterCard, 'low-coast'),
      month,
      components: testRows([['internet-transfer', { sentGb: decimalText(gb) }]]),
    }
    expect(gb.gt(20_000)).toBe(true)
    expect(priceTest(estimate, pricesOf(brackwaterCard)).totals.monthly).toBe(decimalText(sum(sent)))
  })

  it('an effective total is the billed one with purchases spread out, never more than both', () => {
    const october = charges('2026-10', 'Brackwater Cloud')
    expect(sum(october, 'EffectiveCost').gt(sum(october, 'BilledCost').times('0.9'))).toBe(true)
    for (const c of october.filter(c => c.CommitmentDiscountStatus === 'Used')) expect(c.BilledCost).toBe('0')
  })
})

describe('it looks like a company', () => {
  it('has resources enough, about a thousand charged a day', () => {
    expect(brackwaterInventory().length + larkfieldInventory().length).toBeGreaterThan(2200)
    const day = charges('2026-10').filter(c => c.ChargePeriodStart!.startsWith('2026-10-20'))
    expect(new Set(day.map(c => c.ResourceId)).size).toBeGreaterThan(900)
  })
  it('gives the same bytes every time', () => {
    const once = [...deliveries.find(d => d.file === 'larkfield-2026-10.csv.gz')!.charges()]
    expect([
      ...demoDeliveries()
        .find(d => d.file === 'larkfield-2026-10.csv.gz')!
        .charges(),
    ]).toEqual(once)
  })
})

it('a correction of October comes after it was closed, beside all that was delivered before', () => {
  const [before, after] = [charges(lateCorrection.month, lateCorrection.provider), [...correctedDelivery()]]
  expect(after.slice(0, -1)).toEqual(before)
  expect(after.at(-1)).toMatchObject({ ChargeClass: 'Correction', BilledCost: lateCorrection.amount, EffectiveCost: lateCorrection.amount })
  expect(sum(after).minus(sum(before)).eq(lateCorrection.amount)).toBe(true)
})

it('a team is split off in November, and pools that serve each other are a plan that can be saved', () => {
  const { success } = allocationPlanSchema.safeParse(laterPlan(allocationPlan))
  expect(success).toBe(true)
  const november = charges('2026-11', 'Brackwater Cloud').filter(({ Tags }) => Tags?.includes(`"product":"${teamSplit.product}"`))
  expect(november.length).toBeGreaterThan(500)
})
