import { keysOfLayer, rowCodes, type Coding, type SegmentOf } from './layers'
import { hourOf, type KeyColumn, type Segment } from './segment'

/** By place of time the interval between days that a charge period starts in; `starts` are numbers of days, in order, the first −∞. */
export function intervalsOf({ segment }: SegmentOf, starts: readonly number[]): Int32Array {
  return Int32Array.from(segment.time.starts, start => {
    const day = Math.floor(hourOf(start) / 24)
    let interval = starts.length - 1
    while (starts[interval]! > day) interval--
    return interval
  })
}

/** The codes of rows as places in the list of those that occur. @param size all codes are below it. */
export function placedColumn(rows: number, codeOf: (row: number) => number, size: number): KeyColumn {
  const codes = new Uint16Array(rows)
  const ids: number[] = []
  const places = new Uint32Array(size)
  for (let row = 0; row < rows; row++) {
    const code = codeOf(row)
    if (places[code] === 0) places[code] = ids.push(code)
    codes[row] = places[code]! - 1
  }
  return { codes, ids: Int32Array.from(ids) }
}

/** Where the rows of a segment have their places in a coding, and the code of each place. */
export type OwnCodes = { at: Uint16Array; ids: Int32Array; codes: Int32Array | null }
const layered = new WeakMap<Coding, WeakMap<Segment, KeyColumn>>()

/**
 * The places of a segment's rows in a coding, as they are in its one layer: `codes` says what the ids of the places stand for. Where it has
 * several layers, they are worked out row by row, once, and ids are the codes themselves.
 */
export function placesIn(coding: Coding, of: SegmentOf): OwnCodes {
  const [layer, another] = coding.layers
  if (layer && !another) {
    const { codes, ids } = keysOfLayer(layer, of)
    return { at: codes, ids, codes: layer.codes }
  }
  const known = layered.get(coding) ?? new WeakMap<Segment, KeyColumn>()
  layered.set(coding, known)
  let column = known.get(of.segment)
  if (!column) known.set(of.segment, (column = placedColumn(of.segment.rows, rowCodes(coding.layers, of), coding.values.length)))
  return { at: column.codes, ids: column.ids, codes: null }
}

/** A coding whose codes are read from a column of its own, made for a segment when it is asked for first. */
export function columnCoding(values: (string | null)[], columnOf: (of: SegmentOf) => KeyColumn): Coding {
  const made = new WeakMap<Segment, KeyColumn>()
  return {
    values,
    layers: [
      {
        codes: Int32Array.from(values, (_, code) => code),
        column(of) {
          const known = made.get(of.segment)
          if (known) return known
          const column = columnOf(of)
          made.set(of.segment, column)
          return column
        },
      },
    ],
  }
}

/** A coding whose codes are worked out row by row. */
export const codedColumn = (values: (string | null)[], codesOf: (of: SegmentOf) => (row: number) => number): Coding =>
  columnCoding(values, of => placedColumn(of.segment.rows, codesOf(of), values.length))

/** A dimension of which no charge has a value. */
export const noCoding: Coding = codedColumn([null], () => () => 0)
