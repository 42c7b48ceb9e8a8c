import { addDays, daysBetween, monthEnd, monthStart } from '../../core/time/day'
import { findPrice } from '../../core/ratecard/find-price'
import { TODAY } from '../../demo/calendar'
import type { CloudResource } from '../../demo/inventory'
import { brackwaterCard } from '../../demo/rate-cards'
import { charge } from './charges'

/** So many units of a line for each of twenty days, or of some others. */
export const daily = (
  { id, name, region }: CloudResource,
  meter: string,
  variant: string | null,
  unitsADay: number,
  start = addDays(TODAY, -20),
  end = TODAY,
) => {
  const line = findPrice(brackwaterCard, meter, region, variant)!
  return Array.from({ length: daysBetween(start, end) }, (_, i) => {
    const day = addDays(start, i)
    const units = unitsADay.toFixed(6)
    const cost = (Number(units) * Number(line.tiers[0]!.price)).toFixed(8)
    const month = day.slice(0, 7)
    return charge({
      ...{ ProviderName: 'Brackwater Cloud', ResourceId: id, ResourceName: name, RegionId: region },
      ...{ BillingPeriodStart: `${monthStart(month)}T00:00:00Z`, BillingPeriodEnd: `${monthEnd(month)}T00:00:00Z` },
      ...{ ChargePeriodStart: `${day}T00:00:00Z`, ChargePeriodEnd: `${addDays(day, 1)}T00:00:00Z` },
      ...{ SkuId: line.sku, SkuPriceId: `${line.sku}/1`, ServiceName: line.service, SkuMeter: line.meter, PricingUnit: line.unit },
      ...{ PricingQuantity: units, ConsumedUnit: line.unit, ConsumedQuantity: units, BilledCost: cost },
    })
  })
}

/** A disk of the old class, as it is charged for. */
export const oldDisk = (disk: CloudResource) =>
  daily(disk, 'disk-gb-month', 'plain, old', (disk.use as Extract<CloudResource['use'], { kind: 'disk' }>).gb / 30)
