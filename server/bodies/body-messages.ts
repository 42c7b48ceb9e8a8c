import type { ProblemSaid } from '../problems/problem'

/** `operation` is its place in the table. */
export type BodyToRead = { id: number; operation: number; bytes: Uint8Array }
export type BodyRead = { id: number; value: unknown } | { id: number; problem: ProblemSaid }
