import type { Coding, SegmentOf } from './layers'
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
