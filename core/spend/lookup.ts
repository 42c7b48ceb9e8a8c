import { headOf, patternTest } from '../text/pattern'
import { dayNumber, type Day } from '../time/day'
import { codedColumn, intervalsOf } from './coded-column'
import { rowCodes, type Coding } from './layers'

/**
 * What a key means, from a day on and until a day, exclusive; null for no bound. A key that is a pattern, with `*` for any text, means
 * every value that fits it and that no key means by itself. Of entries that hold on a day the first counts.
 */
export type LookupEntry = {
  key: string
  match?: 'pattern' | undefined
  from: Day | null
  until: Day | null
  values: Record<string, string>
}

/** A table that says something of each value of a dimension: `{ by: 'SubAccountName', fields: ['division'], … }`. */
export type Lookup = { by: string; fields: string[]; entries: LookupEntry[] }

/** Entries of a key that hold on days on which an earlier one does too: the places of both. */
export function overlaps(entries: readonly Pick<LookupEntry, 'key' | 'match' | 'from' | 'until'>[]): { place: number; other: number }[] {
  const inOrder = entries
    .map(({ key, match, from, until }, place) => ({ key: match ? `* ${key}` : `= ${key}`, from: from ?? '', until: until ?? '~', place }))
    .sort((a, b) => (a.key !== b.key ? (a.key < b.key ? -1 : 1) : a.from < b.from ? -1 : a.from > b.from ? 1 : a.place - b.place))
  // the entry before that holds longest
  let longest = inOrder[0]
  return inOrder.slice(1).flatMap(entry => {
    const before = longest!
    if (entry.key !== before.key || entry.until > before.until) longest = entry
    if (before.key !== entry.key || entry.from >= before.until) return []
    return [{ place: Math.max(entry.place, before.place), other: Math.min(entry.place, before.place) }]
  })
}

/**
 * Codes of what a lookup says: of the value a charge has of the lookup's dimension, on the day its charge period starts. What the lookup
 * does not know has none.
 * @param base the coding of the lookup's dimension.
 * @param alias spellings of its values that count as another one.
 */
export function lookupCoding({ entries }: Lookup, field: string, base: Coding, alias: Readonly<Record<string, string>>): Coding {
  const known = entries.filter(({ values }) => Object.hasOwn(values, field))
  const values: (string | null)[] = [null, ...[...new Set(known.map(({ values }) => values[field]!))].sort()]
  const codeOf = new Map(values.map((value, code) => [value, code]))
  const days = [...new Set(known.flatMap(({ from, until }) => [from, until].filter(day => day !== null)))].sort()
  const starts = [-Infinity, ...days.map(dayNumber)]
  const baseCode = new Map(base.values.map((value, code) => [value, code]))
  // by interval between days and code of the base, what the lookup says
  const said = starts.map(() => new Int32Array(base.values.length))
  const say = ({ from, until, values: own }: LookupEntry, codes: readonly number[]) =>
    starts.forEach((start, interval) => {
      const holds = (from === null || start >= dayNumber(from)) && (until === null || start < dayNumber(until))
      if (holds) for (const code of codes) said[interval]![code] = codeOf.get(own[field]!)!
    })
  // what is said later stands: keys over patterns, the first over those after it
  const fitting = valuesFitting(base.values)
  for (const entry of [...known].reverse()) if (entry.match) say(entry, fitting(entry.key))
  for (const entry of [...known].reverse()) {
    const code = entry.match ? undefined : baseCode.get(Object.hasOwn(alias, entry.key) ? alias[entry.key]! : entry.key)
    if (code !== undefined) say(entry, [code])
  }
  return codedColumn(values, of => {
    const interval = intervalsOf(of, starts)
    const code = rowCodes(base.layers, of)
    const { codes } = of.segment.time
    return row => said[interval[codes[row]!]!]![code(row)]!
  })
}

/** Finds the places of values that fit a pattern: in the order of their small letters, so that only those are tried that begin so. */
export function valuesFitting(values: readonly (string | null)[]): (pattern: string) => number[] {
  const inOrder = values
    .flatMap((value, place) => (value === null ? [] : [{ lower: value.toLowerCase(), place }]))
    .sort((a, b) => (a.lower < b.lower ? -1 : a.lower > b.lower ? 1 : 0))
  return pattern => {
    const head = headOf(pattern)
    const fits = patternTest(pattern)
    let [low, high] = [0, inOrder.length]
    while (low < high) {
      const middle = (low + high) >> 1
      if (inOrder[middle]!.lower < head) low = middle + 1
      else high = middle
    }
    const found: number[] = []
    for (let at = low; at < inOrder.length && inOrder[at]!.lower.startsWith(head); at++)
      if (fits(inOrder[at]!.lower)) found.push(inOrder[at]!.place)
    return found
  }
}
