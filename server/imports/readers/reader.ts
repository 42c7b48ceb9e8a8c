import type { FileProblem } from '../../../core/focus/problem'

/** What takes the rows of a file. Cells come as places in bytes or as texts, as the format has them. */
export type RowTarget = {
  /** The names of the columns, once. False ends the reading. */
  begin: (header: string[]) => boolean
  /** Whether it is told which cells equal those of the row before, and then does without their bytes. */
  compares: boolean
  /**
   * A row whose cells lie in bytes of UTF-8; they hold until the next row.
   * @param same for a target that compares: 1 where a cell equals that of the row before, which had a cell for each name; its bytes are not
   * to be looked at.
   */
  bytes: (bytes: Uint8Array, cells: number, starts: Int32Array, ends: Int32Array, same: Uint8Array) => void
  /** A row of texts. */
  texts: (cells: string[]) => void
}

/**
 * One file format: says by a file's beginning whether it is its own, and reads it as a stream. Yields how many bytes of the file are done.
 */
export type FileReader = {
  format: string
  recognises: (head: Uint8Array) => boolean
  read: (path: string, target: RowTarget, options: ReadOptions) => AsyncGenerator<number>
}

export type ReadOptions = { delimiter?: string; encoding?: 'utf-8' | 'windows-1252' | 'utf-16le'; skipLines?: number }

/** Stands for bytes that are not UTF-8: half of a pair of surrogates, which is no text and is refused wherever it comes. */
export const NOT_UTF8 = '\uD800'

/** A file that cannot be read to its end. */
export class UnreadableFile extends Error {
  constructor(readonly problem: FileProblem) {
    super(problem.reason)
  }
}

export const unreadable = (row: number | null, reason: string, mend: string) =>
  new UnreadableFile({ row, column: null, value: null, reason, mend })
