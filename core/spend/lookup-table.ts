import { isDay } from '../time/day'
import type { TextTable, WrongLine } from '../text/text-table'
import type { Lookup, LookupEntry } from './lookup'

/** Columns of a table of a lookup that are no fields. */
const MATCH = 'match'
const FROM = 'valid from'
const UNTIL = 'valid until'
const PATTERN = 'pattern'

/**
 * A lookup as a table that reads back as the same: the first column is called by the dimension that it goes by. Days and patterns have
 * columns only where they are used.
 */
export function lookupTable({ by, fields, entries }: Lookup): TextTable {
  const has = { match: entries.some(one => one.match), from: entries.some(one => one.from), until: entries.some(one => one.until) }
  return {
    heads: [by, ...(has.match ? [MATCH] : []), ...(has.from ? [FROM] : []), ...(has.until ? [UNTIL] : []), ...fields],
    rows: entries.map(({ key, match, from, until, values }) => [
      key,
      ...(has.match ? [match ?? ''] : []),
      ...(has.from ? [from ?? ''] : []),
      ...(has.until ? [until ?? ''] : []),
      ...fields.map(field => (Object.hasOwn(values, field) ? values[field]! : '')),
    ]),
  }
}

/** Whether the heads of a table are those of a lookup, by what its first column is called. */
export const isLookupTable = (heads: readonly string[], isBase: (dimension: string) => boolean): boolean =>
  heads.length >= 2 && isBase(heads[0]!.trim())

/**
 * Reads a table of a lookup: the first column is the key, `valid from` and `valid until` are days, `match` says `pattern` where the key is
 * one, and every other column is a field. An empty cell says nothing; rows without any cell are passed over.
 * @returns nothing of it where a line is wrong: all of those are told.
 */
export function readLookupTable({ heads, rows }: TextTable): { lookup: Lookup | null; wrong: WrongLine[] } {
  const names = heads.map(head => head.trim())
  const wrong: WrongLine[] = []
  const fieldPlaces = names.flatMap((name, place) => (place > 0 && ![MATCH, FROM, UNTIL].includes(name) ? [place] : []))
  if (names.some(name => name === '')) wrong.push({ line: 1, why: 'a column has no name' })
  names.forEach((name, place) => {
    if (names.indexOf(name) !== place) wrong.push({ line: 1, why: `the column «${name}» appears twice` })
  })
  if (!fieldPlaces.length) wrong.push({ line: 1, why: `it has no column that says something of each ${names[0]}` })
  const entries: LookupEntry[] = []
  rows.forEach((cells, at) => {
    if (cells.every(cell => cell.trim() === '')) return
    const line = at + 2
    const cell = (name: string) => cells[names.indexOf(name)]?.trim() ?? ''
    const say = (why: string) => wrong.push({ line, why })
    const [key = ''] = cells
    if (cells.length > names.length) say(`it has ${cells.length} cells, and the table ${names.length} columns`)
    if (key === '') say(`it has no ${names[0]}`)
    for (const name of [FROM, UNTIL]) if (cell(name) && !isDay(cell(name))) say(`«${cell(name)}» is no day: write ${name} like 2026-11-01`)
    if (cell(MATCH) && cell(MATCH) !== PATTERN) say(`«${cell(MATCH)}»: write ${PATTERN} or nothing under ${MATCH}`)
    const said = fieldPlaces.flatMap(place => (cells[place] ? [[names[place]!, cells[place]] as const] : []))
    entries.push({
      key,
      ...(cell(MATCH) && { match: PATTERN }),
      from: cell(FROM) || null,
      until: cell(UNTIL) || null,
      values: Object.fromEntries(said),
    })
  })
  if (wrong.length) return { lookup: null, wrong }
  return { lookup: { by: names[0]!, fields: fieldPlaces.map(place => names[place]!), entries }, wrong }
}
