import type { MeasuredDetector } from '../detector'
import { attachedThresholds, isCharged, nothingAttached } from '../measured/nothing-attached'

/** Addresses that are held and that nothing has, as their inventory says hour by hour. */
export const unusedAddress: MeasuredDetector = {
  from: 'measured',
  detector: 'unused-address',
  label: 'Addresses that nothing has',
  looksAt: 'addresses',
  metrics: ['attached'],
  thresholds: attachedThresholds,
  needsOf: resource => (isCharged(resource, 'address-hour') ? ['attached'] : null),
  lookThrough: () => (address, settings, measured) =>
    [
      nothingAttached(address, settings, measured('attached'), {
        detector: unusedAddress.detector,
        title: `nothing has the address ${address.name}`,
        risk: 'little',
        minutesOfWork: 5,
      }),
    ].filter(found => found !== null),
  byHand: {
    steps: ({ resourceName }) => [
      `check whether anything outside still names ${resourceName}: name servers, lists of whom others let in`,
      `release ${resourceName} at its provider`,
    ],
    undo: 'Another address can be had at any time; this one is gone.',
  },
  says: open => `${open === 1 ? 'One address is' : `${open} addresses are`} held and not used.`,
}
