import { Decimal } from '../../money/decimal'
import { highest, type Hourly } from '../../measured/hourly'
import { input } from '../../working/working'
import { dearestPrice } from '../bill/dearest-price'
import { paidUse, unitsIn, usesOf, type BilledResource } from '../bill/billed-resource'
import { atPrice, findingOf, type BillFinding } from '../bill/finding'
import type { Settings } from '../detector'
import { measuredSeries, told } from './measured-series'

/** The operations that are bought for a managed database; null where none are. */
export const databaseUse = (resource: BilledResource) => paidUse(resource, 'database-iops-month')

/** Buying only as many operations as were measured at most, with headroom, beyond those that storage includes. */
export function fewerOperations(resource: BilledResource, settings: Settings, operations: Hourly, detector: string): BillFinding | null {
  const use = databaseUse(resource)
  if (!use) return null
  const most = highest(operations.values)
  const needed = Math.ceil((most * (100 + settings.headroom!)) / 100)
  const storage = usesOf(resource, 'database-gb-month').find(one => unitsIn(one, 3) > 0n)
  const included = Number(storage?.line?.includes?.iops ?? 0)
  const buy = new Decimal(Math.max(0, needed - included))
  const priced = { price: dearestPrice(use.line), sku: use.sku, currency: use.currency }
  const finding = findingOf(
    resource,
    [{ use, how: 'less', then: buy.gt(0) ? atPrice('operations to buy', input('operations to buy', buy, 'IOPS'), priced, use) : null }],
    {
      ...{ detector, of: use.sku, risk: 'little', minutesOfWork: 20, series: [] },
      title: `${resource.name} has more operations bought than it uses`,
      measured: [
        measuredSeries('operations', operations, {
          threshold: { value: needed, label: 'the line is the highest hour with headroom' },
          said: `${told(most)} operations a second at most; ${included} come with the storage.`,
        }),
      ],
    },
  )
  if (!finding) return null
  const now = new Decimal(finding.effects[0]!.now)
  return new Decimal(finding.monthlySaving).times(100).gte(now.times(settings.saved!)) ? finding : null
}
