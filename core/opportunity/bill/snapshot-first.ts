import { findPrice } from '../../ratecard/find-price'
import { input, multiply, type Working } from '../../working/working'
import { usesOf, type BilledResource } from './billed-resource'
import { dearestPrice } from './dearest-price'
import { monthlyUnits } from './finding'

/** So many months a snapshot is kept after its disk was deleted, before somebody deletes it too. Common practice, no source. */
const MONTHS_KEPT = 1

/**
 * What the snapshot costs that is taken of a disk before it is deleted: all that the disk has room for, at the card’s price, until it
 * is deleted too. A snapshot holds what is really used, so it may cost less.
 * @returns the working, in the card's currency; null where no card has a price of snapshots there, or the disk is charged as several kinds.
 */
export function snapshotFirst(disk: BilledResource): Working | null {
  const [use, another] = usesOf(disk, 'disk-gb-month')
  const line = disk.card && findPrice(disk.card, 'snapshot-gb-month', disk.region)
  if (!use || another || !line || use.currency !== disk.card!.currency) return null
  return multiply('its snapshot', [
    monthlyUnits(disk, use),
    input('price', dearestPrice(line), use.currency, line.sku),
    input('months that it is kept', MONTHS_KEPT),
  ])
}

/** What is said of the snapshot beside what speaks for deleting its disk. */
export const snapshotSaid = (cost: Working | null): string =>
  cost
    ? 'A snapshot is taken first, and is counted for a month.'
    : 'A snapshot is taken first; what it costs is on no rate card and not counted.'
