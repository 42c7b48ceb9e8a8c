import type { Detector } from './detector'
import { detectorOf } from './detectors'
import { instructionUndo, instructionWords, type Instruction } from './instruction'
import type { Opportunity } from './opportunity'

/** What acting on an opportunity tells a service, and how that is said. */
export type Acting = { instruction: Instruction; steps: string[]; undo: string }

/** What can be done about an opportunity from here; null where it takes a person. */
export function actingOn(found: Opportunity, detector: Detector = detectorOf(found.detector)): Acting | null {
  if (detector.from === 'connection') {
    const { deed, steps, undo } = detector.action
    // what connections list is deleted, so far
    return { instruction: { type: detector.needs.inventory, deed }, steps: steps(found), undo }
  }
  const { instruction } = found
  if (!instruction) return null
  return { instruction, steps: instructionSteps(found, instruction), undo: instructionUndo(instruction) }
}

/**
 * What a person does about an opportunity where nothing here acts, in words, and how it can be undone; null where it is done from here
 * alone.
 */
export function byHand(found: Opportunity, detector: Detector = detectorOf(found.detector)): { steps: string[]; undo: string } | null {
  if (detector.from === 'connection') return null
  const { steps, undo } = detector.byHand
  return { steps: [...steps(found), 'mark it as done here: the bill then shows what was saved'], undo }
}

/** What is done before, at and after a change that was found, in words. */
function instructionSteps({ resourceName, resourceId, provider, confidence }: Opportunity, instruction: Instruction): string[] {
  return [
    `check again that ${resourceName} (${resourceId}) is there, as it was found, and not locked${confidence === 'measured' ? ', and what was measured since' : ''}`,
    `${instructionWords(instruction)}, at ${provider}`,
    'write down what the service answered and when',
    'compare with the bill as it arrives',
  ]
}
