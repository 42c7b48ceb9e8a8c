import { manyOf } from '../text/many-of'
import type { Lookup, LookupEntry } from './lookup'

/** What two states of a lookup differ in: keys with any of their entries, fields, and what it goes by. */
export type LookupDifference = {
  /** Each key as it is told apart: with its days where it has some. */
  added: string[]
  changed: string[]
  removed: string[]
  fields: { added: string[]; removed: string[] }
  /** Where it goes by another dimension: the one before and the one after. */
  by: { before: string; after: string } | null
}

/** An entry by what it holds for: its key and its days. */
const nameOf = ({ key, match, from, until }: LookupEntry): string =>
  `${key}${match ? ' (pattern)' : ''}${from ? ` from ${from}` : ''}${until ? ` until ${until}` : ''}`
const said = ({ values }: LookupEntry) => JSON.stringify(Object.entries(values).sort(([a], [b]) => (a < b ? -1 : 1)))

/** What one lookup says that another does not. The order of entries says nothing: no two of a key hold on one day. */
export function lookupDifference(before: Lookup, after: Lookup): LookupDifference {
  const old = new Map(before.entries.map(entry => [nameOf(entry), entry]))
  const now = new Map(after.entries.map(entry => [nameOf(entry), entry]))
  return {
    added: [...now.keys()].filter(name => !old.has(name)),
    removed: [...old.keys()].filter(name => !now.has(name)),
    changed: [...now].flatMap(([name, entry]) => (old.has(name) && said(old.get(name)!) !== said(entry) ? [name] : [])),
    fields: {
      added: after.fields.filter(field => !before.fields.includes(field)),
      removed: before.fields.filter(field => !after.fields.includes(field)),
    },
    by: before.by === after.by ? null : { before: before.by, after: after.by },
  }
}

/** Whether two lookups say the same. */
export const isSameLookup = ({ added, changed, removed, fields, by }: LookupDifference): boolean =>
  !added.length && !changed.length && !removed.length && !fields.added.length && !fields.removed.length && !by

/** The difference in a line. */
export function lookupDifferenceWords(difference: LookupDifference): string {
  const { fields, by } = difference
  const counted = (['added', 'changed', 'removed'] as const).flatMap(what => {
    const { length } = difference[what]
    return length ? [`${manyOf(length, 'entry', 'entries')} ${what}`] : []
  })
  const named = (['added', 'removed'] as const).flatMap(what => fields[what].map(field => `field «${field}» ${what}`))
  const other = by ? [`it goes by ${by.after}, not by ${by.before}`] : []
  return [...counted, ...named, ...other].join(', ') || 'nothing differs'
}
