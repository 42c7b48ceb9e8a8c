const DAY_S = 86_400
/** A charge covers so many days at most: no invoice is for longer, a mistake may say it is. */
const MOST_DAYS_COVERED = 400

/** The numbers of the days that a charge period covers, the first at least. @param start and `end`, exclusive, in seconds since 1970. */
export function chargeDays(start: number, end: number): number[] {
  const first = Math.floor(start / DAY_S)
  const last = Math.min(Math.ceil(end / DAY_S) - 1, first + MOST_DAYS_COVERED - 1)
  return Array.from({ length: Math.max(1, last - first + 1) }, (_, i) => first + i)
}
