import type { CellIndex } from './cell-index'

/** The shape of a question, as far as the loop over the rows depends on it. Numbers count arrays that are handed in. */
export type PassShape = {
  /** Whether the period cuts through the segment, so that every row's time is looked at. */
  timed: boolean
  /** How many dictionary masks are tested. */
  masks: number
  /** For each condition on codes, how many layers its code has. */
  filters: readonly number[]
  /** For each split, how many layers its code has. */
  splits: readonly number[]
  /** Whether it is split by time. */
  stepped: boolean
  denomination: 'currency' | 'unit' | 'both'
  measures: number
  /** Null where cells are laid out; else after which parts of the key it is made shorter by an index of its own, before the last index. */
  compacted: readonly number[] | null
}

/**
 * What a pass over part of a segment works on; arrays in the order of the shape's counts. Masks and codes are by the segment's own places.
 */
export type PassArrays = {
  /** By place of time the step it falls into, −1 outside the period. */
  times: Uint16Array
  stepOf: Int32Array
  currency: Uint8Array
  maskKeys: Uint16Array[]
  masks: Uint8Array[]
  filterKeys: Uint16Array[]
  filterCodes: Int32Array[]
  filterAllowed: Uint8Array[]
  splitKeys: Uint16Array[]
  splitCodes: Int32Array[]
  /** How many values each part of the key has: step of time, splits, currency, unit. */
  sizes: number[]
  unitKeys: Uint16Array
  unitCodes: Int32Array
  high: Float64Array[]
  low: Int32Array[]
  sumHigh: Float64Array[]
  sumLow: Float64Array[]
  counts: Uint32Array
  indexes: CellIndex[]
  /** Makes room for a cell found by the last index, renewing the arrays of sums. */
  grow: (cell: number) => void
}

export type Pass = (arrays: PassArrays, from: number, to: number) => void

const made = new Map<string, Pass>()

/**
 * The loop for a shape: tests the row, works out its cell, adds its measures. Written out without any inner loop or branch that the
 * shape does not need, it is several times as fast as a general one.
 */
export function passFor(shape: PassShape): Pass {
  const key = JSON.stringify(shape)
  const known = made.get(key)
  if (known) return known
  const pass = new Function('a', 'from', 'to', source(shape)) as Pass
  made.set(key, pass)
  return pass
}

const each = (count: number, line: (i: number) => string) => Array.from({ length: count }, (_, i) => line(i)).join('\n')

/** The code of a dimension: of its first layer, and of the next where that has none. `at` counts layers over all dimensions. */
function codeLines(name: string, keys: string, codes: string, layers: number, at: number): string {
  return `let ${name} = ${codes}${at}[${keys}${at}[r]];\n${each(layers - 1, i => `if (${name} === 0) ${name} = ${codes}${at + i + 1}[${keys}${at + i + 1}[r]];`)}`
}

function source({ timed, masks, filters, splits, stepped, denomination, measures, compacted }: PassShape): string {
  const layersOf = (list: readonly number[]) => list.reduce((a, b) => a + b, 0)
  const offsets = (list: readonly number[]) => list.map((_, i) => layersOf(list.slice(0, i)))
  const filterAt = offsets(filters)
  const splitAt = offsets(splits)
  const unit = 'unitCodes[unitKeys[r]]'
  // from the left: the step of time, so that the cells of charges of one time lie near each other, the splits, then what keeps sums apart
  const parts = [
    ...(stepped ? ['t'] : []),
    ...splits.map((_, i) => `s${i}`),
    ...(denomination === 'currency' ? ['currency[r]'] : denomination === 'unit' ? [unit] : ['currency[r]', unit]),
  ]
  const key = parts
    .map(
      (part, i) =>
        `${i === 0 ? `let cell = ${part};` : `cell = cell * size${i} + ${part};`}${compacted?.includes(i) ? ` cell = index${compacted.indexOf(i)}.place(cell);` : ''}`,
    )
    .join('\n')
  const renew = `${each(measures, i => `sumHigh${i} = a.sumHigh[${i}]; sumLow${i} = a.sumLow[${i}];`)} counts = a.counts;`
  return `"use strict";
const { times, stepOf, currency, unitKeys, unitCodes } = a;
let counts = a.counts;
${each(masks, i => `const mask${i} = a.masks[${i}], maskKeys${i} = a.maskKeys[${i}];`)}
${each(layersOf(filters), i => `const fk${i} = a.filterKeys[${i}], fc${i} = a.filterCodes[${i}];`)}
${each(filters.length, i => `const allowed${i} = a.filterAllowed[${i}];`)}
${each(layersOf(splits), i => `const sk${i} = a.splitKeys[${i}], sc${i} = a.splitCodes[${i}];`)}
${each(parts.length, i => `const size${i} = a.sizes[${i}];`)}
${compacted ? each(compacted.length + 1, i => `const index${i} = a.indexes[${i}];`) : ''}
${each(measures, i => `const high${i} = a.high[${i}], low${i} = a.low[${i}]; let sumHigh${i} = a.sumHigh[${i}], sumLow${i} = a.sumLow[${i}];`)}
for (let r = from; r < to; r++) {
${timed || stepped ? 'const t = stepOf[times[r]];' : ''}
${timed ? 'if (t < 0) continue;' : ''}
${each(masks, i => `if (mask${i}[maskKeys${i}[r]] === 0) continue;`)}
${filters.map((layers, i) => `${codeLines(`f${i}`, 'fk', 'fc', layers, filterAt[i]!)}\nif (allowed${i}[f${i}] === 0) continue;`).join('\n')}
${splits.map((layers, i) => codeLines(`s${i}`, 'sk', 'sc', layers, splitAt[i]!)).join('\n')}
${key}
${compacted ? `cell = index${compacted.length}.place(cell);\nif (cell >= counts.length) { a.grow(cell); ${renew} }` : ''}
${each(measures, i => `sumHigh${i}[cell] += high${i}[r]; sumLow${i}[cell] += low${i}[r];`)}
counts[cell]++;
}`
}
