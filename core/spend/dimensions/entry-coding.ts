import type { DictionaryName } from '../../focus/star'
import { columnPlace } from '../dimension'
import type { Entries } from '../entries'
import type { Coding } from '../layers'

/** Reads a value off the entries of one dictionary. */
export type EntryLayer = { dictionary: DictionaryName; read: (id: number) => string | null }

/** Reads a FOCUS column of a dictionary's entries. */
export function columnLayer({ entries }: Entries, dictionary: DictionaryName, name: string): EntryLayer {
  const place = columnPlace(dictionary, name)
  return { dictionary, read: id => entries[dictionary][id]?.[place] ?? null }
}

/** Codes of what layers read: of the first that has a value. Spellings that count as another value are that value. */
export function entryCoding({ entries, reference }: Entries, dimension: string, layersRead: readonly EntryLayer[]): Coding {
  const alias = reference.aliases[dimension] ?? {}
  const values: (string | null)[] = [null]
  const codeOf = new Map<string | null, number>([[null, 0]])
  const layers = layersRead.map(({ dictionary, read }) => {
    const codes = new Int32Array(entries[dictionary].length)
    for (let id = 0; id < codes.length; id++) {
      const own = read(id)
      const value = own === null ? null : Object.hasOwn(alias, own) ? alias[own]! : own
      let code = codeOf.get(value)
      if (code === undefined) {
        code = values.push(value) - 1
        codeOf.set(value, code)
      }
      codes[id] = code
    }
    return { dictionary, codes }
  })
  // in the order of the alphabet answers need not sort names again and again
  const order = Array.from(values, (_, code) => code).sort((a, b) => (a === 0 ? -1 : b === 0 ? 1 : values[a]! < values[b]! ? -1 : 1))
  const place = new Int32Array(order.length)
  order.forEach((code, at) => {
    place[code] = at
  })
  for (const { codes } of layers) for (let id = 0; id < codes.length; id++) codes[id] = place[codes[id]!]!
  return { layers, values: order.map(code => values[code]!) }
}
