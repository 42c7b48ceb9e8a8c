import type { DictionaryName } from '../focus/star'
import type { Coding } from './layers'
import type { Cube } from './cube'
import type { Condition, Scope } from './question'
import type { Segment } from './segment'

/** The conditions of a scope: masks over the entries of dictionaries, and over the codes of dimensions. */
export type Narrowed = { masks: Map<DictionaryName, Uint8Array>; filters: { coding: Coding; allowed: Uint8Array }[] }

type Above = Extract<Condition, { above: string }>

/**
 * Conditions as masks: over dictionary entries where a dimension is read from one dictionary (all conditions of a dictionary in one), else
 * over codes.
 * @param codesAbove finds the codes of a dimension whose cost is above an amount.
 */
export function narrow(cube: Cube, scope: Scope, codesAbove: (condition: Above) => ReadonlySet<number>): Narrowed {
  const narrowed: Narrowed = { masks: new Map(), filters: [] }
  const add = (dimension: string, stays: (value: string | null, code: number) => boolean) => {
    const coding = cube.coding(dimension)
    const allowed = Uint8Array.from(coding.values, (value, code) => (stays(value, code) ? 1 : 0))
    const [layer, next] = coding.layers
    if (next || !layer || !('dictionary' in layer)) {
      narrowed.filters.push({ coding, allowed })
      return
    }
    const mask = narrowed.masks.get(layer.dictionary) ?? new Uint8Array(layer.codes.length).fill(1)
    for (let id = 0; id < mask.length; id++) if (allowed[layer.codes[id]!] === 0) mask[id] = 0
    narrowed.masks.set(layer.dictionary, mask)
  }
  for (const [narrowing, keeps] of [
    [scope.keep, true],
    [scope.leaveOut, false],
  ] as const) {
    for (const [dimension, list] of Object.entries(narrowing)) {
      const wanted = new Set(list)
      add(dimension, value => wanted.has(value) === keeps)
    }
  }
  for (const condition of scope.conditions ?? []) {
    if ('contains' in condition) {
      const holds = containing(condition.contains)
      add(condition.dimension, value => holds(value) === condition.keep)
    } else {
      const above = codesAbove(condition)
      add(condition.dimension, (_value, code) => above.has(code) === condition.keep)
    }
  }
  return narrowed
}

function containing(text: string): (value: string | null) => boolean {
  const sought = text.toLowerCase()
  return value => value !== null && value.toLowerCase().includes(sought)
}

/** The masks a segment's rows have to be tested by: none for one that lets all of its ids pass; null when one lets none pass. */
export function masksWithin({ keys }: Segment, masks: Narrowed['masks']): { codes: Uint16Array; mask: Uint8Array }[] | null {
  const found: { codes: Uint16Array; mask: Uint8Array }[] = []
  for (const [dictionary, allowed] of masks) {
    const { codes, ids } = keys[dictionary]
    const mask = new Uint8Array(ids.length)
    let passing = 0
    for (let place = 0; place < mask.length; place++) passing += mask[place] = allowed[ids[place]!]!
    if (!passing) return null
    if (passing < mask.length) found.push({ codes, mask })
  }
  return found
}
