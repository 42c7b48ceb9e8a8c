import { intervalsOf, placesIn } from '../spend/coded-column'
import type { Coding, SegmentOf } from '../spend/layers'
import { countingUp } from '../spend/order'
import { toEnd, type Slices } from '../spend/slices'
import { amountTest, looksAt } from './condition-tests'
import type { Rule } from './plan'
import { type Classes, classesOf, intervalClasses } from './rule-classes'

/**
 * Finds for each charge of a segment the first rule all of whose conditions hold on the day its charge period starts.
 * @param only these rows. @param without the rules of these places, as bits 32 to a word. @returns by row the place of the rule in the
 * list plus one; 0 where none holds.
 */
export type Catcher = (of: SegmentOf, only?: Uint32Array, without?: Int32Array) => Uint16Array

/**
 * Rules as masks: what a rule says of a dimension is asked once of each of its values, not of each charge. Values that let the same rules
 * hold are of one class; a charge is then held against all rules at once, 32 to a word, and only where everything else holds against the
 * conditions on its amount.
 * @param coding the codes of a dimension's values.
 */
export const catcherOf = (rules: readonly Rule[], coding: (dimension: string) => Coding): Catcher => toEnd(catcherInSlices(rules, coding))

/** The same in slices: values may be many. */
export function* catcherInSlices(rules: readonly Rule[], coding: (dimension: string) => Coding): Slices<Catcher> {
  const words = Math.max(1, Math.ceil(rules.length / 32))
  const dimensions = [...new Set(rules.flatMap(rule => rule.conditions.filter(looksAt).map(one => one.dimension)))]
  const looked: { coding: Coding; classes: Classes }[] = []
  for (const dimension of dimensions) {
    const own = coding(dimension)
    yield
    looked.push({ coding: own, classes: yield* classesOf(rules, dimension, own, words) })
  }
  const { starts, classes: ofDays } = intervalClasses(rules, words)
  const tests = rules.map(({ conditions }) => amountTest(conditions))
  return (of, only, without) => {
    const { segment } = of
    const columns = looked.map(({ coding, classes }): Column => ({ ...ownPlaces(coding, of, classes, only), ...classes }))
    if (starts.length > 1) {
      const places = intervalsOf(of, starts)
      columns.push({ codes: segment.time.codes, places, ...ofDays })
    }
    // where all rows of a segment are of one class, it need not be looked up row by row
    const base = Int32Array.from({ length: words }, (_, word) => allOfWord(rules.length, word) & ~(without?.[word] ?? 0))
    const varied = columns.filter(({ places, bits }) => {
      for (let place = 1; place < places.length; place++) if (places[place] !== places[0]) return true
      for (let word = 0; word < words; word++) base[word]! &= bits[(places[0] ?? 0) * words + word]!
      return false
    })
    return firstRules(segment, varied, { base, tests, rows: only?.slice() ?? countingUp(segment.rows) })
  }
}

/** A segment's rows by their places, and by place the class. */
type Column = Omit<Classes, 'classOf'> & { codes: Uint16Array; places: ArrayLike<number> }

type Tests = readonly ReturnType<typeof amountTest>[]

/**
 * The rules are gone through from the first on, rows that are caught being left out of what follows: words of rules that look at one
 * dimension only at once, since its class then says the first of them; other words by themselves.
 */
function firstRules(
  segment: SegmentOf['segment'],
  columns: readonly Column[],
  { base, tests, rows }: { base: Int32Array; tests: Tests; rows: Uint32Array },
): Uint16Array {
  const found = new Uint16Array(segment.rows)
  let left = rows.length
  for (let word = 0; word < base.length && left > 0;) {
    const [speaking, after] = runFrom(columns, word, base.length, tests)
    left =
      speaking.length === 1 && after > word
        ? bySingleColumn(speaking[0]!, { base, from: word, to: after }, rows, left, found)
        : byWord(segment, speaking, { base, word }, rows, left, found, tests)
    word = Math.max(after, word + 1)
  }
  return found
}

/** The columns that speak in a word and, where it is one and no amounts are asked, the word after the run of such words; else the word. */
function runFrom(columns: readonly Column[], word: number, words: number, tests: Tests): [Column[], number] {
  const speaking = (at: number) => columns.filter(({ speaks }) => speaks[at])
  const isPlain = (at: number) => tests.slice(at * 32, at * 32 + 32).every(test => test === null)
  const own = speaking(word)
  const [only, another] = own
  let after = word
  while (only && !another && after < words && isPlain(after) && speaking(after).length === 1 && speaking(after)[0] === only) after++
  return [own, after]
}

/** Rules beyond the last of them hold nowhere. */
const allOfWord = (rules: number, word: number): number => {
  const left = rules - word * 32
  return left >= 32 ? -1 : left <= 0 ? 0 : (1 << left) - 1
}

function bySingleColumn(
  { codes, places, bits }: Column,
  { base, from, to }: { base: Int32Array; from: number; to: number },
  rows: Uint32Array,
  count: number,
  found: Uint16Array,
): number {
  const words = base.length
  const ofClass = new Uint16Array(bits.length / words)
  for (let own = 0; own < ofClass.length; own++)
    for (let word = from; word < to && ofClass[own] === 0; word++) {
      const holding = bits[own * words + word]! & base[word]!
      if (holding !== 0) ofClass[own] = word * 32 + lowestBit(holding) + 1
    }
  const ofPlace = new Uint16Array(places.length)
  for (let place = 0; place < ofPlace.length; place++) ofPlace[place] = ofClass[places[place]!]!
  let left = 0
  for (let i = 0; i < count; i++) {
    const row = rows[i]!
    const rule = ofPlace[codes[row]!]!
    if (rule !== 0) found[row] = rule
    else rows[left++] = row
  }
  return left
}

function byWord(
  segment: SegmentOf['segment'],
  columns: readonly Column[],
  { base, word }: { base: Int32Array; word: number },
  rows: Uint32Array,
  count: number,
  found: Uint16Array,
  tests: Tests,
): number {
  const all = base[word]!
  if (all === 0) return count
  const speaking = columns.map(column => ({ codes: column.codes, holds: holdsIn(column, base.length, word) }))
  const [first = everyRule(segment), second = first, ...others] = speaking
  const [firstCodes, firstHolds, secondCodes, secondHolds] = [first.codes, first.holds, second.codes, second.holds]
  let left = 0
  for (let i = 0; i < count; i++) {
    const row = rows[i]!
    let holding = all & firstHolds[firstCodes[row]!]! & secondHolds[secondCodes[row]!]!
    for (let k = 0; holding !== 0 && k < others.length; k++) holding &= others[k]!.holds[others[k]!.codes[row]!]!
    while (holding !== 0) {
      const bit = lowestBit(holding)
      const test = tests[word * 32 + bit]
      if (!test || test(segment, row)) break
      holding &= ~(1 << bit)
    }
    if (holding !== 0) found[row] = word * 32 + lowestBit(holding) + 1
    else rows[left++] = row
  }
  return left
}

const lowestBit = (bits: number): number => 31 - Math.clz32(bits & -bits)

/** By place of a column which rules of a word hold. */
function holdsIn({ places, bits }: Column, words: number, word: number): Int32Array {
  const holds = new Int32Array(places.length)
  for (let place = 0; place < holds.length; place++) holds[place] = bits[places[place]! * words + word]!
  return holds
}
/** Where no rule of a word looks at a dimension: amounts alone decide. */
const everyRule = ({ time: { codes, starts } }: SegmentOf['segment']) => ({ codes, holds: new Int32Array(starts.length).fill(-1) })

/** The places of a segment's rows in a dimension, and the class of each; of some rows only those that they need. */
function ownPlaces(coding: Coding, of: SegmentOf, { classOf }: Classes, only?: Uint32Array): { codes: Uint16Array; places: Uint32Array } {
  const { at, ids, codes } = placesIn(coding, of)
  const places = new Uint32Array(ids.length)
  if (only) for (const row of only) places[at[row]!] = classOf[codes ? codes[ids[at[row]!]!]! : ids[at[row]!]!]!
  else for (let place = 0; place < ids.length; place++) places[place] = classOf[codes ? codes[ids[place]!]! : ids[place]!]!
  return { codes: at, places }
}
