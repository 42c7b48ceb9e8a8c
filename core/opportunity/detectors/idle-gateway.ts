import { Decimal, decimalText } from '../../money/decimal'
import { findPrice } from '../../ratecard/find-price'
import { ESTIMATE_MONTH_HOURS, addDays } from '../../time/day'
import { evaluate, input, multiply, subtract } from '../../working/working'
import type { ConnectionDetector, DetectorContext, Facts } from '../detector'
import type { EvidenceSeries, Opportunity, Reading } from '../opportunity'

/** What is measured of a gateway: GB in an hour. */
const PASSED = 'passed'
/** Days that are looked at, and the fewest that must have been measured before anything is said. */
const LOOK_BACK_DAYS = 30
const FEWEST_HOURS = 14 * 24
/** Less than this in the whole look-back is the noise of the gateway's own checks. */
const NOISE_GB = 0.1

/**
 * Gateways that nothing passes: they are charged for every hour they exist. Saving a month = 730 h × the hourly price of the rate card;
 * afterwards nothing is charged.
 */
export const idleGateway: ConnectionDetector = {
  from: 'connection',
  detector: 'idle-gateway',
  label: 'Gateways without traffic',
  goesBy: `less than ${NOISE_GB} GB in ${LOOK_BACK_DAYS} days, of which ${FEWEST_HOURS / 24} at least are measured`,
  needs: { inventory: 'gateway', measurements: [{ metric: PASSED, days: LOOK_BACK_DAYS }] },
  async find(facts, context) {
    const found: Opportunity[] = []
    for await (const one of facts) {
      const opportunity = opportunityOf(one, context)
      if (opportunity) found.push(opportunity)
    }
    return found
  },
  whyNot(approved, facts, context) {
    const { today } = context
    const recent = passed(facts).filter(({ at }) => at >= addDays(today, -LOOK_BACK_DAYS))
    const total = passedIn(recent)
    if (total.gte(NOISE_GB)) {
      const now = passedIn(recent.filter(({ at }) => at >= today))
      return `${gbSaid(total)} GB passed it in the last ${LOOK_BACK_DAYS} days, ${gbSaid(now)} GB of them today`
    }
    const again = opportunityOf(facts, context)
    if (!again) return `it is measured for fewer than ${FEWEST_HOURS} hours, or its price is gone from the rate card`
    return new Decimal(again.monthlySaving).lt(approved.monthlySaving)
      ? `it would save ${again.monthlySaving} ${again.currency} a month now, not ${approved.monthlySaving}`
      : null
  },
  action: {
    deed: 'delete',
    steps: ({ resourceName, resourceId, region, subAccountName, provider }: Opportunity) => [
      `check again that ${resourceName} (${resourceId}) is there, not locked, and that nothing passes it, this hour included`,
      `delete the gateway in ${region}, sub account ${subAccountName}, at ${provider}`,
      'write down what the cloud answered and when',
      'compare with the bill as it arrives',
    ],
    undo: 'A deleted gateway cannot be restored; a new one gets another address.',
  },
  says: open => `${open === 1 ? 'One gateway passes nothing and is' : `${open} gateways pass nothing and are`} paid for every hour.`,
  earlierEvidence(kept) {
    if (!('dailyGb' in kept)) return null
    const { from, to, gbTotal, dailyGb } = kept as { from: string; to: string; gbTotal: string; dailyGb: { day: string; gb: number }[] }
    return {
      from,
      to,
      series: [
        passedSeries(
          dailyGb.map(({ day, gb }) => ({ day, value: gb })),
          new Decimal(gbTotal),
        ),
      ],
    }
  },
}

/** What can be saved on a gateway; null for one that is used, too little measured, or without a price. */
function opportunityOf(facts: Facts, { card, today }: DetectorContext): Opportunity | null {
  const { resource: gateway } = facts
  const readings = passed(facts)
  const from = addDays(today, -LOOK_BACK_DAYS)
  const seen = readings.filter(({ at }) => at >= from && at < today)
  const total = passedIn(seen)
  // a day that is not over proves nothing for it, and everything against it
  if (passedIn(readings.filter(({ at }) => at >= today)).gte(NOISE_GB)) return null
  if (seen.length < FEWEST_HOURS || total.gte(NOISE_GB)) return null
  const line = findPrice(card, 'gateway-hour', gateway.region)
  if (!line) return null
  const hourlyPrice = line.tiers[0]!.price
  const now = multiply('now', [
    input('hours a month', ESTIMATE_MONTH_HOURS, 'h'),
    input('price of a gateway', hourlyPrice, 'per hour', line.sku),
  ])
  const working = subtract('saved a month', [now, input('after deletion', 0)])
  return {
    id: `idle-gateway/${gateway.id}`,
    detector: 'idle-gateway',
    title: `${gateway.name} passes nothing`,
    resourceId: gateway.id,
    resourceName: gateway.name,
    provider: card.provider,
    region: gateway.region,
    subAccountName: gateway.subAccountName,
    tags: gateway.tags,
    currency: card.currency,
    service: line.service,
    monthlySaving: decimalText(evaluate(working)),
    working,
    oneOff: null,
    effects: [{ resourceId: gateway.id, sku: line.sku, how: 'gone', now: decimalText(evaluate(working)), then: '0' }],
    evidence: { from, to: today, series: [passedSeries(dailySums(seen), total)] },
    confidence: 'measured',
    risk: 'little',
    minutesOfWork: 10,
  }
}

const passed = ({ readings }: Facts) => readings.get(PASSED) ?? []

/** What passed on each day, in order. */
function dailySums(readings: readonly Reading[]): EvidenceSeries['days'] {
  const daily = new Map<string, number>()
  for (const { at, value } of readings) daily.set(at.slice(0, 10), (daily.get(at.slice(0, 10)) ?? 0) + value)
  return [...daily].sort(([a], [b]) => (a < b ? -1 : 1)).map(([day, value]) => ({ day, value }))
}

const passedSeries = (days: EvidenceSeries['days'], total: Decimal): EvidenceSeries => ({
  label: 'passed through',
  unit: 'GB',
  days,
  threshold: { value: NOISE_GB, label: `below ${NOISE_GB} GB in all it is the noise of its own checks` },
  said: `${total.eq(0) ? 'Nothing' : `${decimalText(total)} GB`} passed in ${days.length} ${days.length === 1 ? 'day' : 'days'}, measured every hour.`,
})

const passedIn = (readings: readonly Reading[]) => readings.reduce((sum, { value }) => sum.plus(value), new Decimal(0))
const gbSaid = (gb: Decimal) => decimalText(gb.round(2))
