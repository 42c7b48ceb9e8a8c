import Papa from 'papaparse'
import type { TextTable, WrongLine } from '../../core/text/text-table'
import { refusal } from './client'

/** Wrong places of a file that are named one by one. */
const MOST_NAMED = 20

/** A CSV by its heads and rows. @throws RequestFailed where a quotation does not end: what follows it would be one cell. */
export function tableOf(file: string, text: string): TextTable {
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').trimEnd(), { header: false })
  const quoted = errors.find(({ type }) => type === 'Quotes')
  if (quoted) throw refusal(`«${file}» was not taken`, `line ${(quoted.row ?? 0) + 1}: ${quoted.message}. Nothing of it was taken.`)
  const [heads = [], ...rows] = data
  return { heads, rows }
}

/** What is wrong with a file, the first of it one by one. */
export function namedSome(wrong: readonly string[]): string {
  const more = wrong.length > MOST_NAMED ? ` … and ${wrong.length - MOST_NAMED} more` : ''
  return `${wrong.slice(0, MOST_NAMED).join('; ')}${more}. Nothing of it was taken.`
}

export const linesSaid = (wrong: readonly WrongLine[]) => namedSome(wrong.map(({ line, why }) => `line ${line}: ${why}`))

/** @throws RequestFailed where it is no JSON. */
export function jsonOf(file: string, text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    throw refusal(`«${file}» was not taken`, 'It is not a JSON document.')
  }
}

/** Where something stands in a JSON file: `plan, rules 3, target`. */
export const placeText = (path: readonly PropertyKey[]) =>
  path.reduce<string>((said, part) => {
    if (typeof part === 'number') return `${said} ${part + 1}`
    return said ? `${said}, ${String(part)}` : String(part)
  }, '') || 'the file'
