import type { DictionaryName } from '../focus/star'
import type { KeyColumn, Segment } from './segment'

/**
 * Codes by place: of a dictionary's ids, or of the ids of a column that is worked out for a segment, where a value depends on more than one
 * dictionary knows. Such a column is made when it is asked for first.
 */
export type CodingLayer = { codes: Int32Array } & ({ dictionary: DictionaryName } | { column: (reached: SegmentOf) => KeyColumn })
/** A segment, the billing month it belongs to (`2026-10`), and the source that delivered it. */
export type SegmentOf = { segment: Segment; billingMonth: string; source: string }

/**
 * A dimension as codes: a charge has the value of the first layer that has one; code 0 is "none". Codes index `values`, `values[0]` being
 * null and the others in the order of the alphabet.
 */
export type Coding = { layers: CodingLayer[]; values: (string | null)[] }

/** Where the rows of a segment have their places in a layer. */
export const keysOfLayer = (layer: CodingLayer, of: SegmentOf): KeyColumn =>
  'dictionary' in layer ? of.segment.keys[layer.dictionary] : layer.column(of)

/** Codes by a segment's own places. */
export function ownCodes({ ids }: KeyColumn, codes: Int32Array): Int32Array {
  const own = new Int32Array(ids.length)
  for (let place = 0; place < own.length; place++) own[place] = codes[ids[place]!]!
  return own
}

/** The code of each row of a segment: of the first layer that has one, 0 where none has. */
export function rowCodes(layers: readonly CodingLayer[], of: SegmentOf): (row: number) => number {
  const read = layers.map(layer => {
    const keys = keysOfLayer(layer, of)
    const own = ownCodes(keys, layer.codes)
    return (row: number) => own[keys.codes[row]!]!
  })
  const [first, ...others] = read
  if (!first) return () => 0
  if (!others.length) return first
  return row => {
    let code = first(row)
    for (let i = 0; code === 0 && i < others.length; i++) code = others[i]!(row)
    return code
  }
}
