import type { BillDetector, ConnectionDetector, Detector, MeasuredDetector, ThresholdDetector } from '../detector'
import { betterClass } from './better-class'
import { boughtPerformance } from './bought-performance'
import { canSleep } from './can-sleep'
import { chosenOtherwise } from './chosen-otherwise'
import { databaseTooLarge } from './database-too-large'
import { diskLeftBehind } from './disk-left-behind'
import { feeWithoutUse } from './fee-without-use'
import { idleGateway } from './idle-gateway'
import { idleLoadBalancer } from './idle-load-balancer'
import { logsKeptLong } from './logs-kept-long'
import { machineTooLarge } from './machine-too-large'
import { ownRule } from './own-rule'
import { snapshotsGrowing } from './snapshots-growing'
import { stoppedStillPaid } from './stopped-still-paid'
import { storageTooWarm } from './storage-too-warm'
import { unattachedDisk } from './unattached-disk'
import { unusedAddress } from './unused-address'
import { zoneTransfer } from './zone-transfer'
import { zonesOutsideLive } from './zones-outside-live'

/** Every way to find savings: what looks, acts and shows is made of it. What is measured stands before what the bill alone says. */
export const detectors: readonly Detector[] = [
  idleGateway,
  idleLoadBalancer,
  machineTooLarge,
  databaseTooLarge,
  boughtPerformance,
  canSleep,
  unattachedDisk,
  unusedAddress,
  feeWithoutUse,
  diskLeftBehind,
  stoppedStillPaid,
  snapshotsGrowing,
  logsKeptLong,
  betterClass,
  zonesOutsideLive,
  zoneTransfer,
  storageTooWarm,
  chosenOtherwise,
  ownRule,
]
export const billDetectors: readonly BillDetector[] = detectors.filter(one => one.from === 'bill')
export const measuredDetectors: readonly MeasuredDetector[] = detectors.filter(one => one.from === 'measured')
/** Those whose thresholds can be set. */
export const thresholdDetectors: readonly ThresholdDetector[] = detectors.filter(one => one.from !== 'connection')
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
