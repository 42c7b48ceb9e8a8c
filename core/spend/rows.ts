import type { Cube } from './cube'
import { narrowedTo } from './group'
import { rowCodes } from './layers'
import { masksWithin } from './narrow'
import type { Scope } from './question'
import { placeWithin } from './reach'
import type { Reached } from './reached'
import { hourOf } from './segment'

/** Finds the rows of segments that a scope leaves. @returns a function that gives those of a segment, in their order. */
export function rowsOf(cube: Cube, scope: Scope): (reached: Reached) => Uint32Array {
  const { masks, filters } = narrowedTo(cube, scope)
  return reached => {
    const { segment, reach } = reached
    const { rows, time } = segment
    const own = masksWithin(segment, masks)
    if (!own) return new Uint32Array(0)
    const inTime = Uint8Array.from(time.starts, start => (placeWithin(reach, hourOf(start)) === null ? 0 : 1))
    const tests = filters.map(({ coding, allowed }) => ({ codeOf: rowCodes(coding.layers, reached), allowed }))
    const found = new Uint32Array(rows)
    let count = 0
    for (let row = 0; row < rows; row++) {
      if (inTime[time.codes[row]!] === 0) continue
      if (!own.every(({ codes, mask }) => mask[codes[row]!] === 1)) continue
      if (tests.every(({ codeOf, allowed }) => allowed[codeOf(row)] === 1)) found[count++] = row
    }
    return found.slice(0, count)
  }
}
