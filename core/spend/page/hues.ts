import type { SpendRow } from './rows'

/** How many hues there are to tell values apart by. */
const HUES = 8

/** What has no value gets no hue: it is nothing to be told from others by one. */
export const isNone = ({ values }: Pick<SpendRow, 'values'>): boolean => values.includes(null)

/** Which hue a value has: it keeps it while one narrows. */
export class Hues {
  readonly #hues = new Map<string, number>()

  /** The largest get the hues; a value that has one keeps it, a free one goes to the next. */
  give(dimensions: readonly string[], largest: readonly Pick<SpendRow, 'values'>[]): void {
    const keys = largest.filter(row => !isNone(row)).map(row => keyOf(dimensions, row))
    const taken = new Set<number>()
    for (const key of keys) {
      const hue = this.#hues.get(key)
      if (hue !== undefined && !taken.has(hue)) taken.add(hue)
      else this.#hues.delete(key)
    }
    for (const key of keys) {
      if (this.#hues.has(key)) continue
      const free = Array.from({ length: HUES }, (_, hue) => hue).find(hue => !taken.has(hue))
      if (free === undefined) continue
      this.#hues.set(key, free)
      taken.add(free)
    }
  }

  /** @returns the hue of a row's values; null where it has none. */
  of(dimensions: readonly string[], row: Pick<SpendRow, 'values'>): number | null {
    return this.#hues.get(keyOf(dimensions, row)) ?? null
  }
}

const keyOf = (dimensions: readonly string[], { values }: Pick<SpendRow, 'values'>) => JSON.stringify([dimensions, values])
