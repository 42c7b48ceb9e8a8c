import type { ServerSize } from '../ratecard/rate-card'

/** Whether a size runs all that another one does: of one architecture, with all its operating systems and disk classes. */
export function runsAlike(then: ServerSize, now: ServerSize): boolean {
  const runsAll = !then.systems || (now.systems?.every(system => then.systems!.includes(system)) ?? false)
  const takesAll = !then.diskClasses || (now.diskClasses?.every(one => then.diskClasses!.includes(one)) ?? false)
  return then.architecture === now.architecture && runsAll && takesAll
}
