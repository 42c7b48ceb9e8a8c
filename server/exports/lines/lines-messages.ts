import type { LineSource } from './charge-lines'

/** What the thread that writes lines asks of those who have the database, wants to be taken, or ends with. */
export type LinesSaid =
  | { [K in keyof LineSource]: { id: number; ask: K; args: Parameters<LineSource[K]> } }[keyof LineSource]
  | { piece: Uint8Array }
  | { end: true }
  | { error: string }
/** What it is told: an answer, or that another piece is wanted. */
export type LinesTold = { id: number; answer: unknown } | { id: number; failed: string } | { more: true }
