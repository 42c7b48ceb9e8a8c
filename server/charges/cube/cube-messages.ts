import type { Bound } from '../../../core/allocation/bound'
import type { MeasuredTable } from '../../../core/measured/measured-table'
import type { Beside } from '../../stores/beside'
import type { CubeCalls } from './cube-calls'
import type { CubeReplies } from './cube-replies'
import type { CubeSlices } from './cube-slices'
import type { CubeUpdate, Known, NewEntries, StagedPeriod } from './cube-state'

/** What changes the charges in memory, and what is known beside them. */
export type CubeChanges = { enter: NewEntries; stage: StagedPeriod; update: CubeUpdate; refer: Beside; measure: MeasuredTable }
/** What is asked, and what whoever asks may see; null for all. */
type Asking<Kind extends string, Asked extends Record<string, (known: Known, argument: never) => unknown>> = {
  [K in keyof Asked]: { id: number; within: Bound | null; argument: Parameters<Asked[K]>[1] } & Record<Kind, K>
}[keyof Asked]
export type CubeRequest =
  | { [K in keyof CubeChanges]: { id: number; change: K; argument: CubeChanges[K] } }[keyof CubeChanges]
  | Asking<'call', CubeCalls>
  | Asking<'reply', CubeReplies>
  | Asking<'slices', CubeSlices>
  | { giveUp: number }
export type CubeReply = { id: number; revision: number; result: unknown } | { id: number; error: string } | { id: number; givenUp: true }
