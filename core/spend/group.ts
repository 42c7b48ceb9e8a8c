import { scaled } from '../money/scaled'
import { CellIndex } from './cell-index'
import type { Coding } from './layers'
import type { Cube } from './cube'
import { readGroups, type Groups } from './groups'
import { keysOfLayer, ownCodes } from './layers'
import { beyondScaled } from '../money/limbs'
import { masksWithin, narrow, type Narrowed } from './narrow'
import { passFor, type Pass, type PassArrays, type PassShape } from './pass'
import type { Condition, Denomination, Grouping, Scope } from './question'
import { segmentsReached, type Reached } from './reached'
import { SEGMENT_ROWS, zeros, type MeasureColumn, type Segment } from './segment'
import { toEnd, type Slices } from './slices'
import { stepsOf, stepsWithin } from './steps'
import { Sums } from './sums'

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
  return toEnd(groupInSlices(cube, question))
}

/** What a question is split by and narrowed to beside its dimensions: codings that have no name. Their codes come after the others. */
export type Beyond = { splits?: readonly Coding[]; filters?: Narrowed['filters'] }

/** The same segment by segment, so that others can be answered in between. Charges and what is known beside them must not change. */
export function* groupInSlices(cube: Cube, question: Grouping, { splits = [], filters = [] }: Beyond = {}): Slices<Groups> {
  const codings = [...question.splitBy.map(dimension => cube.coding(dimension)), ...splits]
  const { masks, filters: own } = narrowedTo(cube, question)
  const narrowed: Narrowed = { masks, filters: [...own, ...filters] }
  const segments = segmentsReached(cube, question)
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
  const passOver = (reached: Reached): Pass | null => {
    const { segment, reach } = reached
    const masks = masksWithin(segment, narrowed.masks)
    if (!masks) return null
    const timed = reach.place !== null || reach.outside !== null || segment.firstHour < reach.from || segment.lastHour >= reach.to
    const keysOf = (coding: Coding) => coding.layers.map(layer => keysOfLayer(layer, reached).codes)
    const codesOf = (coding: Coding) => coding.layers.map(layer => ownCodes(keysOfLayer(layer, reached), layer.codes))
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
    yield
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
    currencies: cube.currencies,
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

function unitCoding(cube: Cube, by: Denomination | undefined): Coding | null {
  if (by === 'pricing unit' || by === 'currency per pricing unit') return cube.coding('PricingUnit')
  return by === 'consumed unit' ? cube.coding('ConsumedUnit') : null
}

/** The conditions of a scope as masks. */
export const narrowedTo = (cube: Cube, scope: Scope): Narrowed => narrow(cube, scope, condition => codesAbove(cube, scope, condition))

/** Codes of values whose billed cost within the period and the plain conditions is above an amount, in any one currency. */
function codesAbove(
  cube: Cube,
  { start, end, keep, leaveOut, billingMonth, ends, begins, basis, elsewhere }: Scope,
  { dimension, above }: Extract<Condition, { above: string }>,
): Set<number> {
  const least = scaled(above)
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
  return passing
}
