import { findPrice } from '../../ratecard/find-price'
import { decimalText } from '../../money/decimal'
import { addDays } from '../../time/day'
import { evaluate, input, multiply } from '../../working/working'
import type { ConnectionDetector, DetectorContext, Facts } from '../detector'
import type { Opportunity } from '../opportunity'

const DAYS = 20
/** So little in a day is what a check of its own reads. */
const NOISE_GB = 0.5

const readOn = ({ readings }: Facts, day: string) =>
  (readings.get('read') ?? []).filter(({ at }) => at.slice(0, 10) === day).reduce((sum, { value }) => sum + value, 0)

function opportunityOf(facts: Facts, { card, today }: DetectorContext): Opportunity | null {
  const { resource: share, charges, events } = facts
  const from = addDays(today, -DAYS)
  const days = Array.from({ length: DAYS }, (_, i) => addDays(from, i)).map(day => ({ day, value: readOn(facts, day) }))
  if (days.some(({ value }) => value >= NOISE_GB) || events.some(({ what }) => what === 'attached')) return null
  const line = findPrice(card, 'gateway-hour', share.region)
  const charge = charges.at(-1)
  if (!line || !charge) return null
  const working = multiply('saved a month', [input('GB kept', charge.quantity, 'GB'), input('price of a GB', line.tiers[0]!.price)])
  return {
    id: `unread-share/${share.id}`,
    detector: 'unread-share',
    title: `${share.name} is not read`,
    ...{ resourceId: share.id, resourceName: share.name, provider: card.provider, region: share.region },
    ...{ subAccountName: share.subAccountName, tags: share.tags, currency: card.currency },
    monthlySaving: decimalText(evaluate(working)),
    working,
    service: line.service,
    oneOff: null,
    effects: [{ resourceId: share.id, sku: line.sku, how: 'gone', now: decimalText(evaluate(working)), then: '0' }],
    confidence: 'measured',
    risk: 'some',
    evidence: {
      from,
      to: today,
      series: [
        {
          label: 'read from',
          unit: 'GB',
          days,
          threshold: { value: NOISE_GB, label: `below ${NOISE_GB} GB a day it is a check of its own` },
          said: `Less than ${NOISE_GB} GB was read on any of ${DAYS} days.`,
        },
      ],
    },
    minutesOfWork: 20,
  }
}

/** Shares that nobody reads: what was measured, what happened to them, and what was charged for them. */
export const unreadShare: ConnectionDetector = {
  from: 'connection',
  detector: 'unread-share',
  label: 'Shares that nobody reads',
  goesBy: `less than ${NOISE_GB} GB on each of ${DAYS} days`,
  needs: { inventory: 'share', measurements: [{ metric: 'read', days: DAYS }], events: { days: DAYS }, charges: { days: 3 } },
  async find(facts, context) {
    const found: Opportunity[] = []
    for await (const one of facts) found.push(...[opportunityOf(one, context) ?? []].flat())
    return found
  },
  whyNot: (_, facts, context) => (opportunityOf(facts, context) ? null : 'it is read again, attached, or charged no more'),
  action: {
    deed: 'delete',
    steps: ({ resourceName }) => [`look once more whether anybody reads ${resourceName}`, 'delete it'],
    undo: 'A deleted share cannot be brought back.',
    noun: 'share',
  },
  says: open => `${open === 1 ? 'One share is' : `${open} shares are`} kept and not read.`,
}
