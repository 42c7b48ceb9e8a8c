import { readFileSync } from 'node:fs'
import { setPriority } from 'node:os'

/** As late as a processor can be got (nice(2)). */
const LATER = 19

/**
 * Lets others go first: the thread or process that calls it gets a processor when those that people wait for do not want it. On Linux a
 * thread has a priority of its own, under the number that it reads of itself; where it has none everything stays as it is.
 */
export function goGently(): void {
  try {
    const thread = Number.parseInt(readFileSync('/proc/thread-self/stat', 'utf8'), 10)
    setPriority(thread, LATER)
  } catch {
    // not Linux, or not allowed: it is only slower for others
  }
}
