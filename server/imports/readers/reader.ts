import type { FileProblem } from '../../../core/focus/problem'

/** What takes the rows of a file. Cells come as places in bytes or as texts, as the format has them. */
export type RowTarget = {
  /** The names of the columns, once. False ends the reading. */
  begin: (header: string[]) => boolean
  /** A row whose cells lie in bytes of UTF-8; they hold until the next row. */
  bytes: (bytes: Uint8Array, cells: number, starts: Int32Array, ends: Int32Array) => void
  /** A row of texts. */
  texts: (cells: string[]) => void
}

/** One file format: says by a file's beginning whether it is its own, and reads it as a stream. Yields how many bytes of the file are done. */
export type FileReader = {
  format: string
  recognises: (head: Uint8Array) => boolean
  read: (path: string, target: RowTarget, options: ReadOptions) => AsyncGenerator<number>
}

export type ReadOptions = { delimiter?: string, encoding?: 'utf-8' | 'windows-1252' | 'utf-16le', skipLines?: number }

/** A file that cannot be read to its end. */
export class UnreadableFile extends Error {
  constructor(readonly problem: FileProblem) {
    super(problem.reason)
  }
}

export const unreadable = (row: number | null, reason: string, mend: string) => new UnreadableFile({ row, column: null, value: null, reason, mend })
