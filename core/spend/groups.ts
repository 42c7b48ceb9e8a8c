import type { CellIndex } from './cell-index'
import type { Coding } from './layers'
import type { CodeColumn } from './combinations'
import type { PassArrays } from './pass'
import type { Denomination } from './question'
import type { Sums } from './sums'

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

type Read = {
  codings: Coding[]
  starts: string[] | null
  cuts: number[] | null
  sizes: number[]
  sums: Sums[]
  arrays: PassArrays
  currencies: readonly string[]
  units: Coding | null
  by: Denomination
  compacted: readonly number[] | null
}

/** The groups of a pass: what its cells were made of, as columns. */
export function readGroups({ codings, starts, cuts, sizes, sums, arrays, currencies, units, by, compacted }: Read): Groups {
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
      if (by === 'currency') return currencies[kind]!
      if (by === 'currency per pricing unit')
        return `${currencies[Math.floor(kind / units!.values.length)]!} per ${units!.values[kind % units!.values.length] ?? 'no unit'}`
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
