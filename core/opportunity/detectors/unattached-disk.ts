import type { MeasuredDetector } from '../detector'
import { snapshotFirst, snapshotSaid } from '../bill/snapshot-first'
import { attachedThresholds, isCharged, nothingAttached } from '../measured/nothing-attached'

/** Disks that no machine has attached, as their inventory says hour by hour. */
export const unattachedDisk: MeasuredDetector = {
  from: 'measured',
  detector: 'unattached-disk',
  label: 'Disks attached to nothing',
  looksAt: 'disks',
  metrics: ['attached'],
  thresholds: attachedThresholds,
  needsOf: resource => (isCharged(resource, 'disk-gb-month') ? ['attached'] : null),
  lookThrough: () => (disk, settings, measured) => {
    const snapshot = snapshotFirst(disk)
    const found = nothingAttached(disk, settings, measured('attached'), {
      detector: unattachedDisk.detector,
      title: `${disk.name} is attached to nothing`,
      risk: 'some',
      instruction: { type: 'disk', deed: 'snapshot and delete' },
      oneOff: snapshot,
      further: snapshotSaid(snapshot),
      minutesOfWork: 15,
    })
    return found ? [found] : []
  },
  byHand: {
    steps: ({ resourceName }) => [
      `ask whether the data on ${resourceName} is wanted`,
      'take a snapshot where it may be, which costs about half as much for each GB that is really used',
      `delete ${resourceName}`,
    ],
    undo: 'A deleted disk comes back only from a snapshot.',
  },
  says: open => `${open === 1 ? 'One disk is' : `${open} disks are`} attached to nothing.`,
}
