import type { Detector } from './detector'
import { detectorOf } from './detectors'
import { instructionSteps, instructionUndo, type Instruction } from './instruction'
import type { Opportunity } from './opportunity'

/** What acting on an opportunity tells a service, and how that is said. */
export type Acting = { instruction: Instruction; steps: string[]; undo: string; noun: string }

/** What can be done about an opportunity from here; null where it takes a person. */
export function actingOn(found: Opportunity, detector: Detector = detectorOf(found.detector)): Acting | null {
  if (detector.from === 'connection') {
    const { deed, steps, undo, noun } = detector.action
    // what connections list is deleted, so far
    return { instruction: { type: detector.needs.inventory, deed }, steps: steps(found), undo, noun }
  }
  const { instruction } = found
  if (!instruction) return null
  return { instruction, steps: instructionSteps(found, instruction), undo: instructionUndo(instruction), noun: instruction.type }
}
