import { scaled, type Scaled } from '../money/scaled'
import { dayFromNumber, dayNumber, type Day } from '../time/day'
import { grainSteps } from '../time/grain'
import type { DictionaryName } from '../focus/star'
import { CellIndex } from './cell-index'
import type { Coding } from './coding'
import type { CodeColumn } from './combinations'
import type { Cube } from './cube'
import { beyondScaled } from './limbs'
import { passFor, type Pass, type PassArrays, type PassShape } from './pass'
import type { Condition, Denomination, Grouping, Scope } from './question'
import { placeWithin, reachOf, type Reach } from './reach'
import { hourOf, SEGMENT_ROWS, zeros, type KeyColumn, type MeasureColumn, type Segment } from './segment'
import { Sums } from './sums'

/** Groups with the exact sums of each measure, column by column: a group is a number from 0. */
export type Groups = {
  size: number
  counts: Uint32Array
  /** By split and group the code of its value in `values`, whose first is null and whose others are in the order of the alphabet. */
  codes: Int32Array[]
  values: (string | null)[][]
  /** Equal for groups whose sums may be added; below `kindCount`. */
  kinds: Int32Array
  kindCount: number
  /** The currency or unit of a kind. */
  denomination: (kind: number) => string
  /** The place of a group's time in `starts`, which are in order; 0 without a grain, where there are no starts. */
  steps: Int32Array
  starts: string[] | null
  /** By step which of the question's cuts it follows, where it has some; a start may then stand for several steps. */
  cuts: number[] | null
  sums: Sums[]
  /** The cell that a group's sums stand in. */
  cells: Uint32Array
}

export const kindColumn = ({ kinds, kindCount }: Groups): CodeColumn => ({ codes: kinds, size: kindCount })
export const splitColumns = ({ codes, values }: Groups): CodeColumn[] =>
  codes.map((own, split) => ({ codes: own, size: values[split]!.length }))
export const stepColumn = ({ steps, starts }: Groups): CodeColumn => ({ codes: steps, size: Math.max(1, starts?.length ?? 1) })

/** Cells are laid out in flat arrays up to this many, or as many as there are rows; more, and a hash finds the cell. */
const DENSE_CELLS = 1 << 16
const MOST_DENSE_CELLS = 1 << 22
const noCodes = new Int32Array(0)
const noPlaces = new Uint16Array(0)

/**
 * Sums measures over the charges a question reaches, by the values it splits by, by start and by currency or unit.
 * Narrowing is decided on dictionary entries first; then the rows are passed over once, by a loop made for the shape of the question.
 * One group per combination that has charges, also when they sum to zero.
 */
export function groupCharges(cube: Cube, question: Grouping): Groups {
  const codings = question.splitBy.map(dimension => cube.coding(dimension))
  const narrowed = narrow(cube, question)
  const segments = segmentsOf(cube, question)
  const units = unitCoding(cube, question.by)
  const steps = stepsWithin(segments, question)
  const kinds =
    question.by === undefined || question.by === 'currency'
      ? [Math.max(1, cube.currencies.length)]
      : question.by === 'currency per pricing unit'
        ? [Math.max(1, cube.currencies.length), units!.values.length]
        : [units!.values.length]
  const isStepped = question.grain !== null || question.cuts !== undefined
  const sizes = [...(isStepped ? [steps.starts.length] : []), ...codings.map(coding => coding.values.length), ...kinds]
  const cells = sizes.reduce((a, b) => a * b, 1)
  const rows = segments.reduce((n, { segment }) => n + segment.rows, 0)
  const sparse = cells > Math.min(MOST_DENSE_CELLS, Math.max(DENSE_CELLS, rows))
  const compacted = sparse ? compactions(sizes) : null
  const room = sparse ? 1024 : cells
  const sums = question.measures.map(() => new Sums(room))
  const indexes = compacted ? Array.from({ length: compacted.length + 1 }, () => new CellIndex()) : []
  const shape: Omit<PassShape, 'timed' | 'masks'> = {
    filters: narrowed.filters.map(({ coding }) => coding.layers.length),
    splits: codings.map(coding => coding.layers.length),
    stepped: isStepped,
    denomination: kinds.length === 2 ? 'both' : units ? 'unit' : 'currency',
    measures: sums.length,
    compacted,
  }
  const arrays: PassArrays = {
    times: noPlaces,
    stepOf: noCodes,
    currency: new Uint8Array(0),
    maskKeys: [],
    masks: [],
    filterKeys: [],
    filterCodes: [],
    filterAllowed: narrowed.filters.map(({ allowed }) => allowed),
    splitKeys: [],
    splitCodes: [],
    sizes,
    unitKeys: noPlaces,
    unitCodes: noCodes,
    high: [],
    low: [],
    sumHigh: sums.map(sum => sum.high),
    sumLow: sums.map(sum => sum.low),
    counts: new Uint32Array(room),
    indexes,
    grow(cell) {
      const counts = new Uint32Array(Math.max(cell + 1, this.counts.length * 2))
      counts.set(this.counts)
      this.counts = counts
      sums.forEach((sum, i) => {
        sum.grow(counts.length)
        this.sumHigh[i] = sum.high
        this.sumLow[i] = sum.low
      })
    },
  }
  const columnsOf = ({ measures }: Segment) => question.measures.map(name => measures[name])
  /** Sets the arrays to a segment. @returns the loop over its rows; null when none of them passes. */
  const passOver = ({ segment, reach }: Reached): Pass | null => {
    const masks = masksWithin(segment, narrowed.masks)
    if (!masks) return null
    const timed = reach.place !== null || reach.outside !== null || segment.firstHour < reach.from || segment.lastHour >= reach.to
    const keysOf = (coding: Coding) => coding.layers.map(layer => segment.keys[layer.dictionary].codes)
    const codesOf = (coding: Coding) => coding.layers.map(layer => ownCodes(segment.keys[layer.dictionary], layer.codes))
    arrays.times = segment.time.codes
    arrays.stepOf = timed || isStepped ? stepsOf(segment, steps, reach) : noCodes
    arrays.currency = segment.currency
    arrays.maskKeys = masks.map(({ codes }) => codes)
    arrays.masks = masks.map(({ mask }) => mask)
    arrays.filterKeys = narrowed.filters.flatMap(({ coding }) => keysOf(coding))
    arrays.filterCodes = narrowed.filters.flatMap(({ coding }) => codesOf(coding))
    arrays.splitKeys = codings.flatMap(keysOf)
    arrays.splitCodes = codings.flatMap(codesOf)
    arrays.unitKeys = units ? segment.keys.price.codes : noPlaces
    arrays.unitCodes = units ? ownCodes(segment.keys.price, units.layers[0]!.codes) : noCodes
    const columns = columnsOf(segment)
    arrays.high = columns.map(column => column.high)
    arrays.low = columns.map(column => column.low)
    return passFor({ timed, masks: masks.length, ...shape })
  }
  for (const reached of segments) {
    const pass = passOver(reached)
    if (!pass) continue
    const { segment } = reached
    const columns = columnsOf(segment)
    const run = Math.min(segment.rows, ...columns.map(column => Sums.run(column.largest)))
    for (let from = 0; from < segment.rows; from += run) {
      const to = Math.min(segment.rows, from + run)
      sums.forEach((sum, i) => sum.reserve(to - from, columns[i]!.largest))
      pass(arrays, from, to)
    }
  }
  const beyond = segments.filter(({ segment }) => columnsOf(segment).some(column => column.beyond))
  if (beyond.length) addBeyond(arrays, sums, beyond, columnsOf, passOver)
  return readGroups({
    codings,
    starts: isStepped ? steps.starts : null,
    cuts: steps.cuts,
    sizes,
    sums,
    arrays,
    cube,
    units,
    by: question.by ?? 'currency',
    compacted,
  })
}

/**
 * Adds what amounts are beyond two limbs: their rows are passed over once more, with the third limb in place of the first and sums of their
 * own, which are then added whole. All cells are there by now.
 */
function addBeyond(
  arrays: PassArrays,
  sums: readonly Sums[],
  segments: readonly Reached[],
  columnsOf: (segment: Segment) => MeasureColumn[],
  passOver: (reached: Reached) => Pass | null,
): void {
  const cells = arrays.counts.length
  const parts = sums.map(() => new Float64Array(cells))
  const highs = sums.map(() => new Float64Array(SEGMENT_ROWS))
  const own = { counts: arrays.counts, sumHigh: arrays.sumHigh, sumLow: arrays.sumLow }
  for (const reached of segments) {
    const pass = passOver(reached)
    if (!pass) continue
    const columns = columnsOf(reached.segment)
    const rows = [...new Set(columns.flatMap(column => column.beyond?.rows ?? []))]
    Object.assign(arrays, {
      counts: new Uint32Array(cells),
      sumHigh: parts,
      sumLow: sums.map(() => new Float64Array(cells)),
      high: highs,
      low: sums.map(() => zeros.low),
    })
    columns.forEach(({ beyond }, i) => beyond?.rows.forEach((row, k) => (highs[i]![row] = beyond.parts[k]!)))
    for (const row of rows) pass(arrays, row, row + 1)
    for (const high of highs) for (const row of rows) high[row] = 0
  }
  Object.assign(arrays, own)
  sums.forEach((sum, i) =>
    parts[i]!.forEach((part, cell) => {
      if (part !== 0) sum.addScaled(cell, beyondScaled(part))
    }),
  )
}

/** After which parts the key must be made shorter, so that it stays countable by a float. */
function compactions(sizes: number[]): number[] {
  const at: number[] = []
  let bound = 1
  sizes.forEach((size, i) => {
    if (bound * size > Number.MAX_SAFE_INTEGER) {
      at.push(i - 1)
      bound = 2 ** 32 // as many combinations as an index can hold at most
    }
    bound *= size
  })
  return at
}

/** A segment that a question reaches into, and how far. */
type Reached = { segment: Segment; reach: Reach }

function segmentsOf(cube: Cube, question: Grouping): Reached[] {
  const found: Reached[] = []
  for (const { source, billingPeriodStart, billingPeriodEnd, segments } of cube.chunks.values()) {
    const reach = reachOf(question, { source, start: billingPeriodStart, end: billingPeriodEnd })
    if (!reach) continue
    for (const segment of segments)
      if (segment.rows && (reach.place || (segment.lastHour >= reach.from && segment.firstHour < reach.to))) found.push({ segment, reach })
  }
  return found
}

/** Codes by a segment's own places. */
function ownCodes({ ids }: KeyColumn, codes: Int32Array): Int32Array {
  const own = new Int32Array(ids.length)
  for (let place = 0; place < own.length; place++) own[place] = codes[ids[place]!]!
  return own
}

/** The masks a segment's rows have to be tested by: none for one that lets all of its ids pass; null when one lets none pass. */
function masksWithin({ keys }: Segment, masks: Narrowed['masks']): { codes: Uint16Array; mask: Uint8Array }[] | null {
  const found: { codes: Uint16Array; mask: Uint8Array }[] = []
  for (const [dictionary, allowed] of masks) {
    const { codes, ids } = keys[dictionary]
    const mask = new Uint8Array(ids.length)
    let passing = 0
    for (let place = 0; place < mask.length; place++) passing += mask[place] = allowed[ids[place]!]!
    if (!passing) return null
    if (passing < mask.length) found.push({ codes, mask })
  }
  return found
}

type Steps = { starts: string[]; stepOfDay: Int32Array | null; from: number; cuts: number[] | null }

/** By a segment's places of time the step of the grain, 0 without a grain; −1 outside the period. */
function stepsOf({ time }: Segment, { starts, stepOfDay, from: first }: Steps, reach: Reach): Int32Array {
  return Int32Array.from(time.starts, start => {
    const hour = placeWithin(reach, hourOf(start))
    if (hour === null) return -1
    return stepOfDay ? stepOfDay[Math.floor((hour - first) / 24)]! : starts.length ? hour - first : 0
  })
}

/** Starts of the grain, only as far as the segments reach into the period. */
function stepsWithin(segments: Reached[], { start, end, grain, cuts }: Grouping): Steps {
  if (grain === null && !cuts) return { starts: [], stepOfDay: null, from: 0, cuts: null }
  const startHour = dayNumber(start) * 24
  const [least, most] = segments.reduce(
    ([least, most], { segment, reach: { from, to, place } }) => {
      // charges of another time stand at the start of their billing period
      const placed = place
        ? [segment.firstHour, segment.lastHour, ...(place(segment.firstHour) === segment.firstHour ? [] : [place(-1)])]
        : null
      const first = placed ? Math.min(...placed) : segment.firstHour
      const last = placed ? Math.max(...placed) : segment.lastHour
      return [Math.min(least, Math.max(from, first)), Math.max(most, Math.min(to - 1, last))]
    },
    [Infinity, -Infinity],
  )
  const first = Math.max(startHour, least)
  const last = Math.min(dayNumber(end) * 24 - 1, most)
  if (first > last) return { starts: [''], stepOfDay: new Int32Array(1), from: startHour, cuts: cuts ? [0] : null }
  const from = Math.floor(first / 24)
  const days = Math.floor(last / 24) + 1 - from
  const steps =
    grain === null ? { starts: [''], stepOfDay: new Int32Array(days) } : grainSteps(dayFromNumber(from), dayFromNumber(from + days), grain)
  return { ...(cuts ? cutSteps(steps, from, days, cuts) : { ...steps, cuts: null }), from: from * 24 }
}

/** Steps that begin anew at each cut; hours lie between cuts as they are. */
function cutSteps(
  { starts, stepOfDay }: { starts: string[]; stepOfDay: Int32Array | null },
  from: number,
  days: number,
  cuts: readonly Day[],
): Omit<Steps, 'from'> {
  const numbers = cuts.map(dayNumber)
  const cutOfDay = new Int32Array(days)
  for (let day = 0, cut = 0; day < days; day++) {
    while (cut + 1 < numbers.length && numbers[cut + 1]! <= from + day) cut++
    cutOfDay[day] = cut
  }
  if (!stepOfDay) return { starts, stepOfDay, cuts: starts.map((_, hour) => cutOfDay[Math.floor(hour / 24)]!) }
  const cut: Omit<Steps, 'from'> & { cuts: number[] } = { starts: [], stepOfDay: new Int32Array(days), cuts: [] }
  for (let day = 0; day < days; day++) {
    if (day === 0 || stepOfDay[day] !== stepOfDay[day - 1] || cutOfDay[day] !== cutOfDay[day - 1]) {
      cut.starts.push(starts[stepOfDay[day]!]!)
      cut.cuts.push(cutOfDay[day]!)
    }
    cut.stepOfDay![day] = cut.starts.length - 1
  }
  return cut
}

function unitCoding(cube: Cube, by: Denomination | undefined): Coding | null {
  if (by === 'pricing unit' || by === 'currency per pricing unit') return cube.coding('PricingUnit')
  return by === 'consumed unit' ? cube.coding('ConsumedUnit') : null
}

type Narrowed = { masks: Map<DictionaryName, Uint8Array>; filters: { coding: Coding; allowed: Uint8Array }[] }

/**
 * Conditions as masks: over dictionary entries where a dimension has one layer (all conditions of a dictionary in one), else over codes.
 */
function narrow(cube: Cube, scope: Scope): Narrowed {
  const narrowed: Narrowed = { masks: new Map(), filters: [] }
  const add = (dimension: string, stays: (value: string | null, code: number) => boolean) => {
    const coding = cube.coding(dimension)
    const allowed = Uint8Array.from(coding.values, (value, code) => (stays(value, code) ? 1 : 0))
    const [layer, next] = coding.layers
    if (next || !layer) {
      narrowed.filters.push({ coding, allowed })
      return
    }
    const mask = narrowed.masks.get(layer.dictionary) ?? new Uint8Array(layer.codes.length).fill(1)
    for (let id = 0; id < mask.length; id++) if (allowed[layer.codes[id]!] === 0) mask[id] = 0
    narrowed.masks.set(layer.dictionary, mask)
  }
  for (const [narrowing, keeps] of [
    [scope.keep, true],
    [scope.leaveOut, false],
  ] as const) {
    for (const [dimension, list] of Object.entries(narrowing)) {
      const wanted = new Set(list)
      add(dimension, value => wanted.has(value) === keeps)
    }
  }
  for (const condition of scope.conditions ?? []) {
    const test = 'contains' in condition ? containing(condition.contains) : aboveTest(cube, scope, condition)
    add(condition.dimension, (value, code) => test(value, code) === condition.keep)
  }
  return narrowed
}

/**
 * The conditions of a scope as dictionary ids, for whoever looks for the charges elsewhere than in memory. All of `ids` must hold; for each
 * of `layered` a charge's first layer with a value has to be among its allowed ids, or, where `none` is allowed, no layer has one.
 */
export type NarrowedIds = {
  ids: { dictionary: DictionaryName; allowed: number[] }[]
  layered: { layers: { dictionary: DictionaryName; allowed: number[]; without: number[] }[]; none: boolean }[]
}

export function narrowedIds(cube: Cube, scope: Scope): NarrowedIds {
  const { masks, filters } = narrow(cube, scope)
  const where = (codes: ArrayLike<number>, test: (code: number) => boolean) =>
    Array.from({ length: codes.length }, (_, id) => id).filter(id => test(codes[id]!))
  return {
    ids: [...masks].map(([dictionary, mask]) => ({ dictionary, allowed: where(mask, stays => stays === 1) })),
    layered: filters.map(({ coding, allowed }) => ({
      layers: coding.layers.map(({ dictionary, codes }) => ({
        dictionary,
        allowed: where(codes, code => code !== 0 && allowed[code] === 1),
        without: where(codes, code => code === 0),
      })),
      none: allowed[0] === 1,
    })),
  }
}

function containing(text: string): (value: string | null) => boolean {
  const sought = text.toLowerCase()
  return value => value !== null && value.toLowerCase().includes(sought)
}

/** Values whose billed cost within the period and the plain conditions is above an amount, in any one currency. */
function aboveTest(
  cube: Cube,
  { start, end, keep, leaveOut, billingMonth, ends, begins, basis, elsewhere }: Scope,
  { dimension, above }: Extract<Condition, { above: string }>,
): (value: string | null, code: number) => boolean {
  const least: Scaled = scaled(above)
  const groups = groupCharges(cube, {
    ...{ start, end, keep, leaveOut, billingMonth, ends, begins, basis, elsewhere },
    splitBy: [dimension],
    grain: null,
    measures: ['billedCost'],
    by: 'currency',
  })
  const passing = new Set<number>()
  for (let group = 0; group < groups.size; group++)
    if (groups.sums[0]!.total(groups.cells[group]!) > least) passing.add(groups.codes[0]![group]!)
  return (_value, code) => passing.has(code)
}

type Read = {
  codings: Coding[]
  starts: string[] | null
  cuts: number[] | null
  sizes: number[]
  sums: Sums[]
  arrays: PassArrays
  cube: Cube
  units: Coding | null
  by: Denomination
  compacted: readonly number[] | null
}

function readGroups({ codings, starts, cuts, sizes, sums, arrays, cube, units, by, compacted }: Read): Groups {
  const { counts, indexes } = arrays
  const most = compacted ? indexes.at(-1)!.size : counts.length
  let size = 0
  const found = new Uint32Array(most)
  for (let cell = 0; cell < most; cell++) if (counts[cell] !== 0) found[size++] = cell
  const cells = found.slice(0, size)
  const parts = sizes.map(() => new Int32Array(size))
  takeApart(cells, sizes, compacted, indexes, parts)
  const splitAt = starts ? 1 : 0
  const kindAt = splitAt + codings.length
  const first = parts[kindAt]!
  const second = parts[kindAt + 1]
  return {
    size,
    sums,
    cells,
    starts,
    cuts,
    counts: cells.map(cell => counts[cell]!),
    codes: parts.slice(splitAt, kindAt),
    values: codings.map(coding => coding.values),
    kindCount: sizes[kindAt]! * (sizes[kindAt + 1] ?? 1),
    kinds: second ? first.map((currency, group) => currency * units!.values.length + second[group]!) : first,
    denomination(kind) {
      if (by === 'currency') return cube.currencies[kind]!
      if (by === 'currency per pricing unit')
        return `${cube.currencies[Math.floor(kind / units!.values.length)]!} per ${units!.values[kind % units!.values.length] ?? 'no unit'}`
      return units!.values[kind] ?? 'no unit'
    },
    steps: starts ? parts[0]! : new Int32Array(size),
  }
}

/** The codes that cells were made of, from the last to the first, following the indexes that made their keys shorter. */
function takeApart(
  cells: Uint32Array,
  sizes: number[],
  compacted: readonly number[] | null,
  indexes: CellIndex[],
  parts: Int32Array[],
): void {
  const keys = new Float64Array(cells.length)
  const last = compacted && indexes.at(-1)!
  for (let i = 0; i < cells.length; i++) keys[i] = last ? last.keys[cells[i]!]! : cells[i]!
  for (let part = sizes.length - 1; part >= 0; part--) {
    const shortened = compacted?.indexOf(part) ?? -1
    if (shortened >= 0) {
      const { keys: longer } = indexes[shortened]!
      for (let i = 0; i < keys.length; i++) keys[i] = longer[keys[i]!]!
    }
    const codes = parts[part]!
    if (part === 0) {
      codes.set(keys)
      return
    }
    const size = sizes[part]!
    for (let i = 0; i < keys.length; i++) {
      const left = Math.floor(keys[i]! / size)
      codes[i] = keys[i]! - left * size
      keys[i] = left
    }
  }
}
