import type { Rule } from './plan'

/** What came of a list of rules: where each is in the new one (−1 where it is gone or moved), and the places of what is new there. */
export type RuleChange = { now: Int32Array; added: number[] }

/** What a rule looks at, whatever it puts charges on. */
export const asksOf = ({ conditions, from, until }: Rule): string => JSON.stringify([conditions, from ?? null, until ?? null])

/**
 * How one list of rules came of another: as many as can be stay, in the order in which they stood (a longest increasing subsequence of
 * their places, by patience sorting); all else is gone or new.
 */
export function ruleChange(before: readonly string[], after: readonly string[]): RuleChange {
  const places = new Map<string, number[]>()
  before.forEach((asks, place) => void (places.get(asks)?.push(place) ?? places.set(asks, [place])))
  /** By place in the new list the place in the old one; −1 for none. Of several that ask the same the last stays: new ones come first. */
  const was = after
    .toReversed()
    .map(asks => places.get(asks)?.pop() ?? -1)
    .reverse()
  const now = new Int32Array(before.length).fill(-1)
  for (const place of increasing(was)) now[was[place]!] = place
  const stays = new Set(now)
  return { now, added: after.flatMap((_, place) => (stays.has(place) ? [] : [place])) }
}

/** The indexes of a longest increasing subsequence of what is not below zero. */
function increasing(values: readonly number[]): number[] {
  const tails: number[] = []
  const previous = new Int32Array(values.length).fill(-1)
  values.forEach((value, i) => {
    if (value < 0) return
    let [low, high] = [0, tails.length]
    while (low < high) {
      const middle = (low + high) >> 1
      if (values[tails[middle]!]! < value) low = middle + 1
      else high = middle
    }
    if (low > 0) previous[i] = tails[low - 1]!
    tails[low] = i
  })
  const found: number[] = []
  for (let i = tails.at(-1) ?? -1; i >= 0; i = previous[i]!) found.push(i)
  return found.reverse()
}
