import type { DictionaryName } from '../../core/focus/star'
import type { Conformance } from '../../core/focus/conformance'
import type { ImportFile, ImportPeriod } from '../../shared/contracts/imports'
import type { Held } from '../db/schema'
import type { PeriodOf } from './period-history'

/** A billing period of a source, by its start. */
export type Period = { source: string; start: string }
/** A billing period as it counts: the load whose charges it has, and how many they are. */
export type CountingPeriod = PeriodOf & { loadId: number; rows: number; deliveredAt: string }
/** What counts now: the state's number, the newest entry of each dictionary, the billing periods. */
export type Counting = { revision: number; newest: Record<DictionaryName, number>; periods: CountingPeriod[] }
/** What was read of a delivery that is to count. */
export type Swap = {
  rows: number
  files: ImportFile[]
  /** By the start of each billing period its end. */
  periodEnds: Record<string, string>
  warnings: string[]
  conformance: Conformance
  corrections: ImportPeriod[]
  held: Record<string, Held>
}
