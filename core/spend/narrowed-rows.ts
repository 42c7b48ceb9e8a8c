import type { DictionaryName } from '../focus/star'
import type { NarrowedIds } from './group'
import { placeWithin, type Reach } from './reach'
import { hourOf, type Segment } from './segment'

/** Whether an id belongs to a list, as an array to look it up in. */
type Among = { dictionary: DictionaryName; has: Uint8Array }

function among({ dictionary, ids }: { dictionary: DictionaryName; ids: readonly number[] }): Among {
  const has = new Uint8Array(ids.reduce((a, b) => Math.max(a, b), -1) + 1)
  for (const id of ids) has[id] = 1
  return { dictionary, has }
}

/**
 * Finds the rows of segments whose charge period starts within some hours and that narrowed conditions leave.
 * @returns a function that gives the rows of a segment in their order, as far as its billing period is reached.
 */
export function narrowedRows({ ids, layered }: NarrowedIds): (segment: Segment, reach: Reach) => number[] {
  const masks = ids.map(({ dictionary, allowed }) => among({ dictionary, ids: allowed }))
  const filters = layered.map(({ layers, none }) => ({
    none,
    layers: layers.map(({ dictionary, allowed, without }) => ({
      allowed: among({ dictionary, ids: allowed }),
      without: among({ dictionary, ids: without }),
    })),
  }))
  return ({ rows, time, keys }, reach) => {
    const inTime = Uint8Array.from(time.starts, start => (placeWithin(reach, hourOf(start)) === null ? 0 : 1))
    const holds = ({ dictionary, has }: Among) => {
      const { codes, ids } = keys[dictionary]
      const own = Uint8Array.from(ids, id => has[id] ?? 0)
      return (row: number) => own[codes[row]!] === 1
    }
    const passes = masks.map(holds)
    const layersOf = filters.map(({ layers, none }) => ({
      none,
      layers: layers.map(layer => ({ allowed: holds(layer.allowed), without: holds(layer.without) })),
    }))
    // the first layer that has a value decides
    const layeredPass = (row: number) =>
      layersOf.every(({ layers, none }) => {
        const decides = layers.find(layer => !layer.without(row))
        return decides ? decides.allowed(row) : none
      })
    const found: number[] = []
    for (let row = 0; row < rows; row++) {
      if (inTime[time.codes[row]!] === 1 && passes.every(pass => pass(row)) && layeredPass(row)) found.push(row)
    }
    return found
  }
}
