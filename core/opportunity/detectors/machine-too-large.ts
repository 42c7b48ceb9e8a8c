import { paidUse } from '../bill/billed-resource'
import type { MeasuredDetector } from '../detector'
import { machines, sizeMetrics, sizeThresholds, smallerSize } from '../measured/too-large'

/** Machines whose processor and memory are used so little that a smaller size carries it with headroom. */
export const machineTooLarge: MeasuredDetector = {
  from: 'measured',
  detector: 'machine-too-large',
  label: 'Machines larger than their use',
  looksAt: 'machines',
  metrics: sizeMetrics,
  thresholds: sizeThresholds,
  needsOf: resource => (paidUse(resource, machines.hour) ? sizeMetrics : null),
  lookThrough: () => (resource, settings, measured) =>
    [smallerSize(resource, machines, settings, measured, machineTooLarge.detector)].filter(found => found !== null),
  byHand: {
    steps: ({ resourceName }) => [
      `ask its owner whether more is to come for ${resourceName} than in the last month`,
      'change its size at the provider, in a quiet hour: it restarts',
    ],
    undo: 'The size can be changed back; the machine restarts.',
  },
  says: open => `${open === 1 ? 'One machine is' : `${open} machines are`} larger than the use asks for.`,
}
