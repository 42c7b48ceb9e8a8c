import type { BillDetector, ConnectionDetector, Detector } from '../detector'
import { betterClass } from './better-class'
import { diskLeftBehind } from './disk-left-behind'
import { feeWithoutUse } from './fee-without-use'
import { idleGateway } from './idle-gateway'
import { snapshotsGrowing } from './snapshots-growing'
import { stoppedStillPaid } from './stopped-still-paid'
import { storageTooWarm } from './storage-too-warm'
import { zonesOutsideLive } from './zones-outside-live'

/** Every way to find savings: what looks, acts and shows is made of it. What is measured stands before what the bill alone says. */
export const detectors: readonly Detector[] = [
  idleGateway,
  feeWithoutUse,
  diskLeftBehind,
  stoppedStillPaid,
  snapshotsGrowing,
  betterClass,
  zonesOutsideLive,
  storageTooWarm,
]
export const billDetectors: readonly BillDetector[] = detectors.filter(one => one.from === 'bill')
export const connectionDetectors: readonly ConnectionDetector[] = detectors.filter(one => one.from === 'connection')

/** @throws RangeError for one that this version does not know. */
export function detectorOf(id: string): Detector {
  const found = detectors.find(({ detector }) => detector === id)
  if (!found) throw new RangeError(`no detector is called ${id}`)
  return found
}

/** @throws RangeError for one that is not a connection's. */
export function connectionDetectorOf(id: string): ConnectionDetector {
  const found = detectorOf(id)
  if (found.from !== 'connection') throw new RangeError(`${id} looks through no connection`)
  return found
}
