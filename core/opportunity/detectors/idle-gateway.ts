import { Decimal, decimalText } from '../../money/decimal'
import { findPrice } from '../../ratecard/rate-card'
import { ESTIMATE_MONTH_HOURS, addDays } from '../../time/day'
import { evaluate, input, multiply, subtract } from '../../working/working'
import type { GatewayFacts, HourReading } from '../opportunity'
import type { Detector } from './detector'

/** Days that are looked at, and the fewest that must have been measured before anything is said. */
export const LOOK_BACK_DAYS = 30
const FEWEST_HOURS = 14 * 24
/** Less than this in the whole look-back is the noise of the gateway's own checks. */
const NOISE_GB = 0.1

export type MeasuredGateway = { gateway: GatewayFacts; readings: readonly HourReading[] }

/**
 * Gateways that nothing passes: they are charged for every hour they exist. Saving a month = 730 h × the hourly price of the rate card;
 * afterwards nothing is charged.
 */
export const idleGateway: Detector<MeasuredGateway> = {
  detector: 'idle-gateway',
  label: 'Gateways without traffic',
  find(facts, { card, today }) {
    const from = addDays(today, -LOOK_BACK_DAYS)
    return facts.flatMap(({ gateway, readings }) => {
      const seen = readings.filter(({ hour }) => hour >= from && hour < today)
      const total = passedIn(seen)
      // a day that is not over proves nothing for it, and everything against it
      if (passedIn(readings.filter(({ hour }) => hour >= today)).gte(NOISE_GB)) return []
      if (seen.length < FEWEST_HOURS || total.gte(NOISE_GB)) return []
      const line = findPrice(card, 'gateway-hour', gateway.region)
      if (!line) return []
      const hourlyPrice = line.tiers[0]!.price
      const now = multiply('now', [
        input('hours a month', ESTIMATE_MONTH_HOURS, 'h'),
        input('price of a gateway', hourlyPrice, 'per hour', line.sku),
      ])
      const working = subtract('saved a month', [now, input('after deletion', 0)])
      const daily = new Map<string, number>()
      for (const { hour, gb } of seen) daily.set(hour.slice(0, 10), (daily.get(hour.slice(0, 10)) ?? 0) + gb)
      return [
        {
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
          monthlySaving: decimalText(evaluate(working)),
          working,
          hourlyPrice,
          evidence: {
            from,
            to: today,
            hoursMeasured: seen.length,
            gbTotal: decimalText(total),
            dailyGb: [...daily].sort(([a], [b]) => (a < b ? -1 : 1)).map(([day, gb]) => ({ day, gb })),
          },
          minutesOfWork: 10,
        },
      ]
    })
  },
  whyNot(approved, { gateway, readings }, { card, today }) {
    const recent = readings.filter(({ hour }) => hour >= addDays(today, -LOOK_BACK_DAYS))
    const total = passedIn(recent)
    if (total.gte(NOISE_GB)) {
      const now = passedIn(recent.filter(({ hour }) => hour >= today))
      return `${gbSaid(total)} GB passed it in the last ${LOOK_BACK_DAYS} days, ${gbSaid(now)} GB of them today`
    }
    const [again] = idleGateway.find([{ gateway, readings }], { card, today })
    if (!again) return `it is measured for fewer than ${FEWEST_HOURS} hours, or its price is gone from the rate card`
    return new Decimal(again.monthlySaving).lt(approved.monthlySaving)
      ? `it would save ${again.monthlySaving} ${again.currency} a month now, not ${approved.monthlySaving}`
      : null
  },
}

const passedIn = (readings: readonly HourReading[]) => readings.reduce((sum, { gb }) => sum.plus(gb), new Decimal(0))
const gbSaid = (gb: Decimal) => decimalText(gb.round(2))
