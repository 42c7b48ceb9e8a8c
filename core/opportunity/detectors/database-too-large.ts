import { paidUse } from '../bill/billed-resource'
import type { MeasuredDetector } from '../detector'
import { databases, sizeMetrics, sizeThresholds, smallerSize } from '../measured/too-large'

/** Managed databases whose processor and memory are used so little that a smaller size carries it with headroom. */
export const databaseTooLarge: MeasuredDetector = {
  from: 'measured',
  detector: 'database-too-large',
  label: 'Databases larger than their use',
  looksAt: 'databases',
  metrics: sizeMetrics,
  thresholds: sizeThresholds,
  needsOf: resource => (paidUse(resource, databases.hour) ? sizeMetrics : null),
  lookThrough: () => (resource, settings, measured) =>
    [smallerSize(resource, databases, settings, measured, databaseTooLarge.detector)].filter(found => found !== null),
  byHand: {
    steps: ({ resourceName }) => [
      `check whether what ${resourceName} keeps in memory fits into the smaller size`,
      'change its size at the provider, in the hours set aside for it: it is away for some minutes',
    ],
    undo: 'The size can be changed back; the database is away for some minutes again.',
  },
  says: open => `${open === 1 ? 'One database is' : `${open} databases are`} larger than the use asks for.`,
}
