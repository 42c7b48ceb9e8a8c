/** One statement for the thread that has the embedded database. */
export interface Call {
  id: number
  sql: string
  params?: unknown[]
  rowMode?: 'array' | 'object'
  blob?: Uint8Array
  many?: boolean
  /** A channel to listen to, instead of a statement. */
  listen?: string
}
/** What was notified on a channel. */
export type Heard = { channel: string; payload: string }
export type Reply =
  | { id: number; result: unknown; blob?: Uint8Array }
  | { id: number; error: { message: string; code?: string; detail?: string; constraint?: string; table?: string; column?: string } }
