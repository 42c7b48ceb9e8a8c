import type { BillDetector, Threshold } from '../detector'
import type { Bill } from '../bill/bill'
import { unitsIn, within, type BilledResource, type BilledUse } from '../bill/billed-resource'
import { amount, findingOf } from '../bill/finding'
import type { LookBack } from '../bill/stretches'

const days: Threshold = {
  key: 'days',
  label: 'charged without use for at least',
  unit: 'days',
  usual: 14,
  least: 3,
  most: 30,
  options: [30, 14, 7, 3],
}
const noise: Threshold = {
  key: 'noise',
  label: 'use that costs at most this much of the fee is none',
  unit: '%',
  usual: 1,
  least: 0,
  most: 50,
}

/**
 * A fee by the hour for something that is also charged for use, and none of that: gateways, load balancers, caches of whatever provider.
 * Whether a service is charged for use at all is told by others of it on the same bill.
 */
export const feeWithoutUse: BillDetector = {
  from: 'bill',
  detector: 'fee-without-use',
  label: 'Fees without use',
  thresholds: [days, noise],
  lookThrough(bill) {
    const used = usedServices(bill)
    return (resource, settings) => {
      const back = settings.days as LookBack
      const fees = resource.uses.filter(isFee)
      const hours = fees.reduce((sum, fee) => sum + unitsIn(fee, back), 0n)
      if (resource.window.days < back || !hours || !used.has(serviceOf(resource))) return []
      // charged on every day of it, and to the last
      if (fees.every(fee => unitsIn(fee, 3) === 0n) || hours < BigInt(back * 24 - 24) * ONE_UNIT) return []
      const [fee, use] = [
        costIn(fees, back),
        costIn(
          resource.uses.filter(one => one.charged === 'use'),
          back,
        ),
      ]
      if (amount(use).times(100).gt(amount(fee).times(settings.noise!))) return []
      const gone = resource.uses.filter(one => within(one.cost, 30) !== 0n).map(one => ({ use: one, how: 'gone' as const, then: null }))
      const finding = findingOf(resource, gone, {
        detector: feeWithoutUse.detector,
        title: `${resource.name} is paid for and not used`,
        risk: 'little',
        minutesOfWork: 10,
        series: [
          {
            resourceId: resource.id,
            skus: resource.uses.filter(one => one.charged === 'use').map(({ sku }) => sku),
            label: 'used',
            unit: 'units',
            threshold: { value: 0, label: `no use on ${back} days in a row, while others of ${resource.service} are charged for use` },
            said: `Charged for ${back} days and more for being there, for use not at all${use > 0n ? ' to speak of' : ''}.`,
          },
        ],
      })
      return finding ? [finding] : []
    }
  },
  byHand: {
    steps: ({ resourceName }) => [
      `ask whoever made ${resourceName} whether anything still waits for it`,
      `delete ${resourceName} at its provider`,
    ],
    undo: 'It can be created again, mostly under another address.',
  },
  says: open => `${open === 1 ? 'One thing is' : `${open} things are`} paid by the hour and not used.`,
}

/** What is summed has fifteen decimals. */
const ONE_UNIT = 10n ** 15n
const isFee = ({ charged, unit }: BilledUse) => charged === 'existing' && unit === 'Hours'
const serviceOf = ({ provider, service }: BilledResource) => `${provider}\n${service}`
const costIn = (uses: readonly BilledUse[], back: LookBack) =>
  uses.reduce((sum, { cost, committedCost }) => sum + within(cost, back) + within(committedCost, back), 0n)

/** Services of which something was charged for use lately: only there does it say anything that nothing was. */
function usedServices({ resources }: Bill): Set<string> {
  const isUsed = ({ uses }: BilledResource) => uses.some(use => use.charged === 'use' && unitsIn(use, 30) > 0n)
  return new Set(resources.filter(resource => resource.uses.some(isFee) && isUsed(resource)).map(serviceOf))
}
