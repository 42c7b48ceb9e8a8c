/** How a cell stands in the file: as it is, in quotes, in quotes with quotes inside. */
export const PLAIN = 0
export const QUOTED = 1
export const DOUBLED = 2

/**
 * What is known of each cell of a record: where its text is, how it is quoted, whether it equals the cell of the record before; and where
 * it and the cell before stand in the buffer, quotes and all.
 */
export type CellArrays = {
  starts: Int32Array
  ends: Int32Array
  quotes: Uint8Array
  same: Uint8Array
  from: Int32Array
  to: Int32Array
  fromBefore: Int32Array
  toBefore: Int32Array
}
export const cellArrays = (length: number): CellArrays => ({
  starts: new Int32Array(length),
  ends: new Int32Array(length),
  quotes: new Uint8Array(length),
  same: new Uint8Array(length),
  from: new Int32Array(length),
  to: new Int32Array(length),
  fromBefore: new Int32Array(length),
  toBefore: new Int32Array(length),
})

/** @returns the same arrays with room for twice as many cells. */
export function widened(cells: CellArrays): CellArrays {
  const wider = cellArrays(cells.starts.length * 2)
  for (const name of Object.keys(wider) as (keyof CellArrays)[]) wider[name].set(cells[name])
  return wider
}
