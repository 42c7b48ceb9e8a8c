import { decimalText, type Decimal } from '../../money/decimal'
import { divide, evaluate, input, multiply } from '../../working/working'
import type { BillDetector, Threshold } from '../detector'
import { between, unitsBefore, unitsIn, usesOf, within } from '../bill/billed-resource'
import { amount, findingOf, monthlyCost } from '../bill/finding'
import { DAYS_OF_A_MONTH } from '../bill/stretches'

const growth: Threshold = { key: 'growth', label: 'grown within a month by at least', unit: '%', usual: 20, least: 1, most: 1000 }
const size: Threshold = { key: 'size', label: 'and by at least', unit: 'GB', usual: 200, least: 1, most: 1_000_000 }

/** The days from the sixtieth to the thirtieth before the end, and the last seven. */
const EARLIER_DAYS = 30
const LATELY_DAYS = 7

/**
 * Snapshots and backups that grow: what is kept in the last week against what was kept a month before. What has come since is offered as
 * what a rule to delete the old would save.
 */
export const snapshotsGrowing: BillDetector = {
  from: 'bill',
  detector: 'snapshots-growing',
  label: 'Snapshots that only grow',
  thresholds: [growth, size],
  lookThrough() {
    return (resource, settings) => {
      return ['snapshot-gb-month', 'database-backup-gb-month'].flatMap(meter =>
        usesOf(resource, meter).flatMap(use => {
          // GB-months of some days, as the GB kept on each
          const kept = (units: bigint, days: number) => amount(units).times(DAYS_OF_A_MONTH).div(days)
          const earlier = kept(between(use.quantity, 60, 30), EARLIER_DAYS)
          const lately = kept(unitsIn(use, 7), LATELY_DAYS)
          const more = lately.minus(earlier)
          // one that was made in between, or that the bill does not reach back to, was kept on fewer days
          if (unitsBefore(use, 60) === 0n || earlier.eq(0) || within(use.cost, 7) <= 0n) return []
          if (more.lt(settings.size!) || more.times(100).lt(earlier.times(settings.growth!))) return []
          const [was, is] = [decimalText(earlier.round(3)), decimalText(lately.round(3))]
          const then = multiply('as much as a month ago', [
            monthlyCost(resource, use),
            divide('of what is kept now', [input('GB kept a month ago', was, 'GB'), input('GB kept now', is, 'GB')]),
          ])
          const finding = findingOf(resource, [{ use, how: 'less', then }], {
            detector: snapshotsGrowing.detector,
            of: use.sku,
            title: `${resource.name} has grown by ${percent(more, earlier)} % in a month`,
            risk: 'some',
            minutesOfWork: 45,
            series: [
              {
                resourceId: resource.id,
                skus: [use.sku],
                label: 'kept',
                unit: 'GB',
                threshold: { value: Number(was), label: `${whole(earlier)} GB were kept a month before` },
                said: `${whole(earlier)} GB were kept a month before, ${whole(lately)} GB in the last week.`,
              },
            ],
          })
          return finding && evaluate(then).gte(0) ? [finding] : []
        }),
      )
    }
  },
  byHand: {
    steps: ({ resourceName }) => [
      `look how long copies of ${resourceName} have to be kept`,
      'set a rule that deletes older ones, and delete those that are older now',
    ],
    undo: 'Deleted copies do not come back.',
  },
  says: open => `${open === 1 ? 'One chain of snapshots only grows.' : `${open} chains of snapshots only grow.`}`,
}

const whole = (amount: Decimal) => decimalText(amount.round(0))
const percent = (part: Decimal, whole: Decimal) => decimalText(part.times(100).div(whole).round(0))
