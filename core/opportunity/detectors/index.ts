import type { Detector } from '../detector'
import { idleGateway } from './idle-gateway'

/** Every way to find savings: what looks, acts and shows is made of it. */
export const detectors: readonly Detector[] = [idleGateway]

/** @throws RangeError for one that this version does not know. */
export function detectorOf(id: string): Detector {
  const found = detectors.find(({ detector }) => detector === id)
  if (!found) throw new RangeError(`no detector is called ${id}`)
  return found
}
