/** What failed is tried again after a pause that doubles, up to so many times; then a person is told. */
export const MOST_TRIES = 3
const FIRST_PAUSE_MS = 10 * 60_000

/** When something that failed so often is tried again; null when it is not by itself. @param endedAt when it failed last, an instant. */
export function retryAt(failures: number, endedAt: string): string | null {
  if (failures >= MOST_TRIES) return null
  return new Date(Date.parse(endedAt) + FIRST_PAUSE_MS * 2 ** (failures - 1)).toISOString()
}
