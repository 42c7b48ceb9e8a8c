import type { BillDetector, Threshold } from '../detector'
import { between, unitsIn, within, type BilledResource, type BilledUse } from '../bill/billed-resource'
import { findingOf } from '../bill/finding'
import { lookBacks, type LookBack } from '../bill/stretches'

const days: Threshold = {
  key: 'days',
  label: 'it has stood still for at least',
  unit: 'days',
  usual: 14,
  least: 3,
  most: 30,
  options: [30, 14, 7, 3],
}

/** Machines and databases that ran within two months and do not run any more, while what is kept for them is still charged. */
export const stoppedStillPaid: BillDetector = {
  from: 'bill',
  detector: 'stopped-still-paid',
  label: 'Stopped, and still paid for',
  thresholds: [days],
  lookThrough() {
    return (resource, settings) => {
      const back = settings.days as LookBack
      const running = resource.uses.filter(isRunning)
      const ran = running.reduce((sum, use) => sum + between(use.quantity, 60, back) + between(use.committedQuantity, 60, back), 0n)
      if (ran === 0n || running.some(use => unitsIn(use, back) !== 0n)) return []
      const kept = resource.uses.filter(use => !isRunning(use) && use.charged === 'existing' && unitsIn(use, 3) > 0n)
      const finding = findingOf(
        resource,
        kept.filter(use => within(use.cost, 30) !== 0n).map(use => ({ use, how: 'gone' as const, then: null })),
        {
          detector: stoppedStillPaid.detector,
          title: `${resource.name} stands still and is paid for`,
          risk: 'some',
          minutesOfWork: 30,
          series: [series(resource, running, back)],
        },
      )
      return finding ? [finding] : []
    }
  },
  byHand: {
    steps: ({ resourceName }) => [
      `ask its owner whether ${resourceName} is to run again`,
      'take a copy of what is kept where it may be wanted',
      `delete ${resourceName} with all that is kept for it`,
    ],
    undo: 'What was deleted comes back only from the copy.',
  },
  says: open => `${open === 1 ? 'One machine stands' : `${open} machines stand`} still and ${open === 1 ? 'is' : 'are'} paid for.`,
}

const isRunning = ({ line }: BilledUse) => line?.meter === 'server-hour' || line?.meter === 'database-hour'

const series = ({ id }: BilledResource, running: readonly BilledUse[], back: LookBack) => ({
  resourceId: id,
  skus: running.map(({ sku }) => sku),
  label: 'ran',
  unit: 'h',
  threshold: { value: 0, label: `no hour for ${back} days` },
  said: `It ran within ${lookBacks[0]} days, and not in the last ${back}.`,
})
