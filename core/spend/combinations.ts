import { TupleIndex } from '../focus/column-values'
import { CellIndex } from './cell-index'

/** A column of codes from 0 to below `size`. */
export type CodeColumn = { codes: ArrayLike<number>; size: number }

/** A flat table of all possible combinations is kept where it has at most so many places, or so many to an item. */
const FLAT = 1 << 12
const FLAT_TO_AN_ITEM = 16

/**
 * The combinations of codes that occur, numbered in the order in which they are first met: which one each item has, and the first item of
 * each.
 */
export function combinationsOf(columns: CodeColumn[], count: number): { of: Uint32Array; first: Uint32Array } {
  const of = new Uint32Array(count)
  const first = new Uint32Array(count)
  const possible = columns.reduce((product, { size }) => product * size, 1)
  let found = 0
  if (possible > Number.MAX_SAFE_INTEGER) {
    const index = new TupleIndex(columns.length)
    const tuple = new Int32Array(columns.length)
    for (let item = 0; item < count; item++) {
      for (let i = 0; i < columns.length; i++) tuple[i] = columns[i]!.codes[item]!
      const place = (of[item] = index.place(tuple))
      if (place === found) first[found++] = item
    }
    return { of, first: first.subarray(0, found) }
  }
  const keys = keysOf(columns, count)
  if (possible > Math.max(FLAT, count * FLAT_TO_AN_ITEM)) {
    const index = new CellIndex()
    for (let item = 0; item < count; item++) {
      const place = (of[item] = index.place(keys[item]!))
      if (place === found) first[found++] = item
    }
    return { of, first: first.subarray(0, found) }
  }
  const places = new Uint32Array(possible)
  for (let item = 0; item < count; item++) {
    const key = keys[item]!
    if (places[key] === 0) {
      first[found] = item
      places[key] = ++found
    }
    of[item] = places[key]! - 1
  }
  return { of, first: first.subarray(0, found) }
}

/** Codes as one number, the first column counting most; exact while there are fewer than 2⁵³ combinations. */
export function keysOf(columns: CodeColumn[], count: number): Float64Array {
  const keys = new Float64Array(count)
  for (const { codes, size } of columns) for (let item = 0; item < count; item++) keys[item] = keys[item]! * size + codes[item]!
  return keys
}
