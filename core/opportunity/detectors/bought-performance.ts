import type { MetricName } from '../../measured/metrics'
import type { MeasuredDetector, Threshold } from '../detector'
import { databaseUse, fewerOperations } from '../measured/database-performance'
import { cheaperPerformance, diskUse } from '../measured/disk-performance'

const headroom: Threshold = { key: 'headroom', label: 'headroom above the highest hour', unit: '%', usual: 20, least: 0, most: 400 }
const saved: Threshold = { key: 'saved', label: 'the other costs less by at least', unit: '%', usual: 5, least: 0, most: 90 }
const ofDisk: readonly MetricName[] = ['operations', 'throughput']
const ofDatabase: readonly MetricName[] = ['operations']

/** Performance of disks and managed databases that is bought and not used: operations and throughput against what was measured. */
export const boughtPerformance: MeasuredDetector = {
  from: 'measured',
  detector: 'bought-performance',
  label: 'Performance bought and not used',
  looksAt: 'disks and databases',
  metrics: ofDisk,
  thresholds: [headroom, saved],
  needsOf: resource => (diskUse(resource) ? ofDisk : databaseUse(resource) ? ofDatabase : null),
  lookThrough: () => (resource, settings, measured) =>
    [
      diskUse(resource)
        ? cheaperPerformance(resource, settings, measured, boughtPerformance.detector)
        : fewerOperations(resource, settings, measured('operations'), boughtPerformance.detector),
    ].filter(found => found !== null),
  byHand: {
    steps: ({ resourceName }) => [
      `ask its owner whether ${resourceName} has peaks that come less often than once a month`,
      'take a snapshot, and change class and bought performance at the provider, in a quiet hour',
    ],
    undo: 'Class and bought performance can be changed back, at some providers only once in some hours.',
  },
  says: open =>
    `${open === 1 ? 'One disk or database has' : `${open} disks and databases have`} more performance bought than the use asks for.`,
}
