import { randomUUID } from 'node:crypto'
import { Expected } from './problem'

/** Whether the words of an error are meant for a person. */
export const isExpected = (error: unknown): error is Expected => error instanceof Expected

/** `53100` is a PostgreSQL server's code. */
const isDiskFull = (error: unknown): boolean => {
  const { code, message = '' } = (error ?? {}) as { code?: string; message?: string }
  return code === 'ENOSPC' || code === '53100' || /no space left|disk is full/i.test(message)
}

/**
 * What went wrong, in words for a person: what a database, a library or a thread says of itself stays in the log, under an id that the
 * words carry. The one place where the unexpected becomes words.
 * @param what what failed, for the log.
 */
export function saidOf(error: unknown, what: string): string {
  if (isExpected(error)) return error.message
  const id = randomUUID().slice(0, 8)
  console.error(`fault ${id}: ${what}`, error)
  if (isDiskFull(error) || isDiskFull((error as Error | undefined)?.cause))
    return `the disk is full: make room where Rain Barrel keeps its data (the server's log says more under ${id})`
  return `a fault in Rain Barrel (the server's log says more under ${id})`
}
