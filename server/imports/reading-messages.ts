// What is said between the server and the process that reads deliveries.
import type { Conformance } from '../../core/focus/conformance'
import type { Mapping } from '../../core/focus/mapping/mapping'
import type { ImportError, ImportFile, ImportPeriod } from '../../shared/contracts/imports'
import type { EntryTexts, KnownTexts } from '../charges/entry-ids'
import type { EncodedSegment } from '../charges/segment-builder'
import type { Held } from '../db/schema'

/** A delivery that is to be read. */
export type ImportTask = {
  loadId: number
  source: string
  mapping: Mapping | null
  files: { name: string; path: string; bytes: number; sha256: string }[]
  /** What the database has, for a process that has just begun; null when it knows. */ known: KnownTexts | null
}
export type ImportMessage =
  /** Entries whose ids are wanted: the answer is an `IdTexts`. */
  | { type: 'entries'; entries: EntryTexts }
  /** Segments to keep: the answer is `next`. */
  | { type: 'segments'; segments: EncodedSegment[] }
  | { type: 'progress'; bytesDone: number; rows: number; errorCount: number }
  | ImportDone
  | { type: 'fault'; message: string }
export type ImportDone = {
  type: 'done'
  rows: number
  files: ImportFile[]
  periodEnds: Record<string, string>
  warnings: string[]
  errorCount: number
  errors: ImportError[]
  conformance: Conformance
  corrections: ImportPeriod[]
  /** What it has of each billing period. */
  held: Record<string, Held>
}
