import type { Mapping } from './mapping'

/** What a charge says, as a mapping can be edited: a column of FOCUS and what its values are. */
export type MappedField = { column: string; kind: 'text' | 'number' | 'time' }
/** Where a field's values come from: a column of the file, the same value always, or nowhere. */
export type FieldSource = { column: string } | { constant: string } | null

const listOf = { text: 'texts', number: 'numbers', time: 'times' } as const
const PLAIN_NUMBER = /^-?\d+(\.\d+)?$/

/** Where a field's values come from. */
export function sourceOf(mapping: Mapping, { column, kind }: MappedField): FieldSource {
  const from = mapping[listOf[kind]][column]
  return !from ? null : 'constant' in from ? { constant: from.constant } : { column: from.column }
}

/** The mapping with another source for a field. What a number was multiplied by goes with its column. */
export function withSource(mapping: Mapping, { column, kind }: MappedField, source: FieldSource): Mapping {
  const list = listOf[kind]
  const { [column]: _, ...others } = mapping[list] as Record<string, unknown>
  return { ...mapping, [list]: source === null ? others : { ...others, [column]: source } }
}

/** By what a number of a column is multiplied: a number, another column, or nothing (an empty text). */
export function factorOf(mapping: Mapping, column: string): string {
  const from = mapping.numbers[column]
  return from && 'column' in from ? (from.timesColumn ?? from.times ?? '') : ''
}

/** The mapping with a number multiplied by a column of the file's header, or by a plain number; by nothing for anything else. */
export function withFactor(mapping: Mapping, column: string, factor: string, header: readonly string[]): Mapping {
  const from = mapping.numbers[column]
  if (!from || !('column' in from)) return mapping
  const times = header.includes(factor) ? { timesColumn: factor } : PLAIN_NUMBER.test(factor) ? { times: factor } : {}
  return { ...mapping, numbers: { ...mapping.numbers, [column]: { column: from.column, ...times } } }
}

/** The mapping with a column of the file as a tag, named after it in small letters. */
export function withTag(mapping: Mapping, column: string): Mapping {
  const key = column.trim().toLowerCase().replace(/\W+/g, '-')
  return { ...mapping, tags: { ...mapping.tags, [key]: column } }
}

export function withoutTag(mapping: Mapping, key: string): Mapping {
  const { [key]: _, ...tags } = mapping.tags
  return { ...mapping, tags }
}
