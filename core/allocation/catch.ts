import { parseScaled, type Scaled } from '../money/scaled'
import { intervalsOf, placedColumn } from '../spend/coded-column'
import { keysOfLayer, rowCodes, type Coding, type SegmentOf } from '../spend/layers'
import { amountOf, type KeyColumn } from '../spend/segment'
import { dayNumber } from '../time/day'
import { patternTest, type AmountCondition, type Condition, type PatternCondition, type ValueCondition } from './condition'
import type { Rule } from './plan'

/**
 * Finds for each charge of a segment the first rule all of whose conditions hold on the day its charge period starts.
 * @returns by row the place of the rule in the list plus one; 0 where none holds.
 */
export type Catcher = (of: SegmentOf) => Uint16Array

type Looks = ValueCondition | PatternCondition
const looksAt = (one: Condition): one is Looks => 'dimension' in one
/** A column of places, and for each place which rules it lets hold: a bit for each rule, so many words to a place. */
type Masks = { codes: Uint16Array; bits: Uint32Array }
type Test = (segment: SegmentOf['segment'], row: number) => boolean

/**
 * Rules as masks: what a rule says of a dimension is asked once of each of its values, not of each charge. A charge is then held against
 * all rules at once, 32 to a word, and only where everything else holds against the conditions on its amount.
 * @param coding the codes of a dimension's values.
 */
export function catcherOf(rules: readonly Rule[], coding: (dimension: string) => Coding): Catcher {
  const words = Math.max(1, Math.ceil(rules.length / 32))
  const dimensions = [...new Set(rules.flatMap(rule => rule.conditions.filter(looksAt).map(one => one.dimension)))]
  const masks = dimensions.map(dimension => ({
    coding: coding(dimension),
    bits: dimensionBits(rules, dimension, coding(dimension), words),
  }))
  const { starts, bits: dayBits } = intervalBits(rules, words)
  const tests = rules.map(({ conditions }) => amountTest(conditions.filter((one): one is AmountCondition => !looksAt(one))))
  return of => {
    const { segment } = of
    const columns = masks.map(({ coding, bits }) => masksOf(placesOf(coding, of), bits, words))
    if (starts.length > 1) {
      const intervals = intervalsOf(of, starts)
      columns.push(masksOf({ codes: segment.time.codes, ids: intervals }, dayBits, words))
    }
    return firstRules(segment, mergedByColumn(columns), words, rules.length, tests)
  }
}

function firstRules(segment: SegmentOf['segment'], columns: Masks[], words: number, rules: number, tests: (Test | null)[]): Uint16Array {
  const found = new Uint16Array(segment.rows)
  // rules beyond the last of them hold nowhere
  const last = rules % 32 === 0 ? 0xffffffff : (1 << (rules % 32)) - 1
  for (let row = 0; row < segment.rows; row++) {
    for (let word = 0; word < words && found[row] === 0; word++) {
      let holding = rules === 0 ? 0 : word === words - 1 ? last : 0xffffffff
      for (const { codes, bits } of columns) holding &= bits[codes[row]! * words + word]!
      while (holding !== 0) {
        const bit = 31 - Math.clz32(holding & -holding)
        const rule = word * 32 + bit
        const test = tests[rule]
        if (!test || test(segment, row)) {
          found[row] = rule + 1
          break
        }
        holding &= ~(1 << bit)
      }
    }
  }
  return found
}

/** By code of a dimension the rules that its value lets hold. */
function dimensionBits(rules: readonly Rule[], dimension: string, { values }: Coding, words: number): Uint32Array {
  const bits = new Uint32Array(values.length * words)
  const codeOf = new Map(values.map((value, code) => [value, code]))
  const indifferent = new Uint32Array(words)
  rules.forEach(({ conditions }, rule) => {
    const [word, bit] = [rule >> 5, 1 << (rule & 31)]
    const own = conditions.filter(looksAt).filter(one => one.dimension === dimension)
    const [only, another] = own
    if (!only) indifferent[word]! |= bit
    else if (!another && 'values' in only) {
      for (const value of only.values) {
        const code = codeOf.get(value)
        if (code !== undefined) bits[code * words + word]! |= bit
      }
    } else {
      const tests = own.map(valueTest)
      values.forEach((value, code) => {
        if (tests.every(test => test(value))) bits[code * words + word]! |= bit
      })
    }
  })
  if (indifferent.some(word => word !== 0))
    for (let code = 0; code < values.length; code++)
      for (let word = 0; word < words; word++) bits[code * words + word]! |= indifferent[word]!
  return bits
}

function valueTest(one: Looks): (value: string | null) => boolean {
  if ('pattern' in one) return patternTest(one.pattern)
  const wanted = new Set(one.values)
  return value => wanted.has(value)
}

/** Intervals between days at which rules begin or end to hold, and by interval the rules that hold in it. */
function intervalBits(rules: readonly Rule[], words: number): { starts: number[]; bits: Uint32Array } {
  const days = rules.flatMap(({ from, until }) => [from, until].filter(day => typeof day === 'string')).map(dayNumber)
  const starts = [-Infinity, ...[...new Set(days)].sort((a, b) => a - b)]
  const bits = new Uint32Array(starts.length * words)
  rules.forEach(({ from, until }, rule) => {
    starts.forEach((start, interval) => {
      const holds = (!from || start >= dayNumber(from)) && (!until || start < dayNumber(until))
      if (holds) bits[interval * words + (rule >> 5)]! |= 1 << (rule & 31)
    })
  })
  return { starts, bits }
}

/** Where the rows of a segment have the codes of a dimension: in a dictionary, or, where it has several layers, worked out row by row. */
function placesOf({ layers, values }: Coding, of: SegmentOf): KeyColumn {
  const [layer, next] = layers
  if (!layer || next) return placedColumn(of.segment.rows, rowCodes(layers, of), values.length)
  const { codes, ids } = keysOfLayer(layer, of)
  return { codes, ids: ids.map(id => layer.codes[id]!) }
}

/** The bits of a segment's own places, next to each other. */
function masksOf({ codes, ids }: KeyColumn, bits: Uint32Array, words: number): Masks {
  const own = new Uint32Array(ids.length * words)
  for (let place = 0; place < ids.length; place++)
    for (let word = 0; word < words; word++) own[place * words + word] = bits[ids[place]! * words + word]!
  return { codes, bits: own }
}

/** Masks over the same places become one. */
function mergedByColumn(columns: Masks[]): Masks[] {
  const merged = new Map<Uint16Array, Masks>()
  for (const { codes, bits } of columns) {
    const known = merged.get(codes)
    if (known) for (let i = 0; i < bits.length; i++) known.bits[i]! &= bits[i]!
    else merged.set(codes, { codes, bits })
  }
  return [...merged.values()]
}

/** Whether the amounts of a charge hold against conditions on them; null where there are none. */
function amountTest(conditions: readonly AmountCondition[]): Test | null {
  if (!conditions.length) return null
  const amountIn = (text: string | undefined): Scaled | null => (text === undefined ? null : parseScaled(text)!.value)
  const bounds = conditions.map(({ measure, atLeast, below }) => ({ measure, least: amountIn(atLeast), below: amountIn(below) }))
  return (segment, row) =>
    bounds.every(({ measure, least, below }) => {
      const amount = amountOf(segment.measures[measure], row)
      return (least === null || amount >= least) && (below === null || amount < below)
    })
}
