/**
 * Something wrong in a file: where, what, and how to mend it. A problem of the whole file has no row. Rows count records from 1 after the
 * header.
 */
export type FileProblem = { row: number | null; column: string | null; value: string | null; reason: string; mend: string }

const LONGEST_VALUE = 120

/** Shortens a value so that a list of problems stays readable, and shows what is no text as what stands for it. */
export function shownValue(raw: string): string {
  const value = raw.toWellFormed().replaceAll('\0', '\uFFFD')
  return value.length > LONGEST_VALUE ? `${value.slice(0, LONGEST_VALUE)}… (${value.length} characters)` : value
}

/** Why a value cannot stay as it is, and how to mend it. */
export type Wrong = { reason: string; mend: string }
