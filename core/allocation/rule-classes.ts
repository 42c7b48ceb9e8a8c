import type { Coding } from '../spend/layers'
import type { Slices } from '../spend/slices'
import { allOf, looksAt, valueTest, type ValueTest } from './condition-tests'
import type { Rule } from './plan'
import { dayNumber } from '../time/day'

/**
 * Values that let the same rules hold are one class. `bits` has so many words to a class, a bit to each rule; `speaks` says of each word
 * whether any of its rules looks at the dimension at all.
 */
export type Classes = { classOf: Uint32Array; bits: Uint32Array; speaks: boolean[] }

/** So many values are looked at in a slice. */
const VALUES_AT_ONCE = 10_000
/** The code of each value of a coding, made when it is asked for first. */
const codes = new WeakMap<Coding, Map<string | null, number>>()
function codesOf(coding: Coding): Map<string | null, number> {
  const known = codes.get(coding)
  if (known) return known
  const made = new Map(coding.values.map((value, code) => [value, code]))
  codes.set(coding, made)
  return made
}

/** The classes of a dimension's values. */
export function* classesOf(rules: readonly Rule[], dimension: string, coding: Coding, words: number): Slices<Classes> {
  const indifferent = new Uint32Array(words)
  const named = new Map<number, Uint32Array>()
  const tested: RuleTest[] = []
  const speaks = new Array<boolean>(words).fill(false)
  rules.forEach(({ conditions }, rule) => {
    const [word, bit] = [rule >> 5, 1 << (rule & 31)]
    const own = conditions.filter(looksAt).filter(one => one.dimension === dimension)
    const [only, another] = own
    if (!only) return void (indifferent[word]! |= bit)
    speaks[word] = true
    if (another || !('values' in only)) return void tested.push({ word, bit, ...allOf(own.map(valueTest)) })
    for (const value of only.values) {
      const code = codesOf(coding).get(value)
      if (code === undefined) continue
      const bits = named.get(code) ?? new Uint32Array(words)
      bits[word]! |= bit
      named.set(code, bits)
    }
  })
  const testsFor = testsByHead(tested)
  const { values } = coding
  const classes = new ClassIndex(words)
  const classOf = new Uint32Array(values.length)
  const bits = new Uint32Array(words)
  const plain = classes.place(indifferent)
  for (let code = 0; code < values.length; code++) {
    if (code % VALUES_AT_ONCE === VALUES_AT_ONCE - 1) yield
    const own = named.get(code)
    if (!own && !tested.length) {
      classOf[code] = plain
      continue
    }
    bits.set(indifferent)
    if (own) for (let word = 0; word < words; word++) bits[word]! |= own[word]!
    const value = values[code]!
    const lower = tested.length && value !== null ? value.toLowerCase() : null
    let isPlain = !own
    for (const { word, bit, holds } of testsFor(lower)) {
      if (!holds(value, lower)) continue
      bits[word]! |= bit
      isPlain = false
    }
    classOf[code] = isPlain ? plain : classes.place(bits)
  }
  return { classOf, bits: classes.bits(), speaks }
}

type RuleTest = ValueTest & { word: number; bit: number }

/** Finds the tests that a value can meet by how it begins: patterns are many, and few begin like a value. */
function testsByHead(tests: readonly RuleTest[]): (lower: string | null) => readonly RuleTest[] {
  const anywhere = tests.filter(({ head }) => head === '')
  const headed = tests.filter(({ head }) => head !== '')
  if (!headed.length) return () => anywhere
  const length = Math.min(...headed.map(({ head }) => head.length))
  const byHead = new Map<string, RuleTest[]>()
  for (const test of headed) {
    const head = test.head.slice(0, length)
    byHead.set(head, [...(byHead.get(head) ?? anywhere), test])
  }
  return lower => (lower === null ? anywhere : (byHead.get(lower.slice(0, length)) ?? anywhere))
}

/** Finds equal words again. */
class ClassIndex {
  #places = new Map<string, number>()
  #bits: number[] = []
  constructor(private readonly words: number) {}

  place(bits: Uint32Array): number {
    const key = String.fromCharCode(...new Uint16Array(bits.buffer, bits.byteOffset, this.words * 2))
    let place = this.#places.get(key)
    if (place === undefined) {
      place = this.#places.size
      this.#places.set(key, place)
      this.#bits.push(...bits)
    }
    return place
  }

  bits(): Uint32Array {
    return Uint32Array.from(this.#bits)
  }
}

/** Intervals between days at which rules begin or end to hold, a class each. */
export function intervalClasses(rules: readonly Rule[], words: number): { starts: number[]; classes: Omit<Classes, 'classOf'> } {
  const days = rules.flatMap(({ from, until }) => [from, until].filter(day => typeof day === 'string')).map(dayNumber)
  const starts = [-Infinity, ...[...new Set(days)].sort((a, b) => a - b)]
  const bits = new Uint32Array(starts.length * words)
  const speaks = new Array<boolean>(words).fill(false)
  rules.forEach(({ from, until }, rule) => {
    if (from || until) speaks[rule >> 5] = true
    starts.forEach((start, interval) => {
      const holds = (!from || start >= dayNumber(from)) && (!until || start < dayNumber(until))
      if (holds) bits[interval * words + (rule >> 5)]! |= 1 << (rule & 31)
    })
  })
  return { starts, classes: { bits, speaks } }
}
