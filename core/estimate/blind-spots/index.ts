import type { Estimate } from '../estimate'
import type { BlindSpot, BlindSpotFound } from './blind-spot'
import { noDisk } from './no-disk'
import { noOutgoingTransfer } from './no-outgoing-transfer'

export type { BlindSpotFound } from './blind-spot'

export const blindSpots: readonly BlindSpot[] = [noDisk, noOutgoingTransfer]

/** What the estimate most likely lacks; what was dismissed with a reason is left out. */
export function findBlindSpots(estimate: Estimate): BlindSpotFound[] {
  const dismissed = new Set(estimate.dismissed.map(d => d.blindSpot))
  return blindSpots.flatMap((spot) => {
    const found = dismissed.has(spot.id) ? null : spot.find(estimate)
    return found ? [{ id: spot.id, ...found }] : []
  })
}
