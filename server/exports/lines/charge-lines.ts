import { focusColumn } from '../../../core/focus/columns'
import { amountColumns, dictionaries, dictionaryFor, dictionaryNames, quantityColumns, type DictionaryName } from '../../../core/focus/star'
import { ABSENT, amountTextOf, measureNames, type Segment } from '../../../core/spend/segment'
import { instantOf, isoInstant } from '../../../core/time/instant'
import type { Entry } from '../../charges/entry-sql'
import { currencyList, storedSegments } from '../../charges/stored-segments'
import type { LoadRows } from '../../charges/cube/cube-calls'

const numbers: readonly string[] = [...amountColumns, ...quantityColumns]

/** Columns that charge lines can be taken with: FOCUS columns that are kept, and providers' own. */
export const lineColumns: readonly string[] = [
  'BillingPeriodStart',
  'ChargePeriodStart',
  'ChargePeriodEnd',
  'BillingPeriodEnd',
  'BillingCurrency',
  ...dictionaryNames.filter(name => name !== 'others').flatMap(name => [...dictionaries[name]]),
  ...numbers,
]

export const isLineColumn = (name: string) => lineColumns.includes(name) || /^x_\w+$/.test(name) || focusColumn(name) !== undefined
/** What a column of charge lines holds, by the specification. */
export function lineKind(name: string): 'amount' | 'time' | 'text' {
  const type = focusColumn(name)?.type
  return type === 'decimal' ? 'amount' : type === 'datetime' ? 'time' : 'text'
}

type Values = Map<DictionaryName, Map<number, (string | null)[]>>
type Reader = { dictionary: DictionaryName | null; read: (segment: Segment, row: number, values: Values) => string | null }
type Known = { start: string; end: string; currencies: readonly string[] }

/** Where the charges are kept, for a thread that has no database of its own. Whatever is large comes as bytes or as one text. */
export type LineSource = {
  /** Which rows of which loads are wanted, by segment; billing periods in order. */
  rows: () => Promise<LoadRows[]>
  segments: (loadId: number, start: string, number?: number) => Promise<Uint8Array[]>
  /** Entries of a dictionary as a JSON text. @param ids a JSON list. */
  entriesText: (dictionary: DictionaryName, ids: string) => Promise<string>
}

/** So many lines are handed on at once. */
const LINES_AT_ONCE = 1000

/**
 * The charges of a scope, billing period by billing period and by the start of the charge, as texts of the chosen columns; amounts with
 * every digit.
 * @param marked what a line has beside them, by its mark.
 */
export async function* chargeLines(
  kept: LineSource,
  columns: readonly string[],
  marked?: readonly (string | null)[][],
): AsyncGenerator<(string | null)[][]> {
  const values: Values = new Map()
  for (const { loadId, billingPeriodStart, billingPeriodEnd, segments, marks } of await kept.rows()) {
    const [start, end] = [isoInstant(billingPeriodStart), isoInstant(billingPeriodEnd)]
    const { currencies, code } = currencyList()
    const readers = columns.map(name => readerFor(name, { start, end, currencies }))
    const found: { segment: Segment; row: number; start: number; mark: number }[] = []
    let number = 0
    for await (const segment of storedSegments(kept, loadId, start, code)) {
      const rows = segments[number] ?? []
      const own = marks?.[number]
      number++
      rows.forEach((row, at) => found.push({ segment, row, start: segment.time.starts[segment.time.codes[row]!]!, mark: own?.[at] ?? 0 }))
      for (const dictionary of new Set(readers.flatMap(reader => reader.dictionary ?? [])))
        await learn(
          kept,
          values,
          dictionary,
          Array.from(rows, row => keyOf(segment, dictionary, row)),
        )
    }
    found.sort((a, b) => a.start - b.start)
    for (let from = 0; from < found.length; from += LINES_AT_ONCE) {
      yield found.slice(from, from + LINES_AT_ONCE).map(({ segment, row, mark }) => {
        const line = readers.map(reader => reader.read(segment, row, values))
        return marked ? [...line, ...marked[mark]!] : line
      })
    }
  }
}

const keyOf = ({ keys }: Segment, dictionary: DictionaryName, row: number): number => keys[dictionary].ids[keys[dictionary].codes[row]!]!

/** Reads the entries that are not known yet. */
async function learn(kept: LineSource, values: Values, dictionary: DictionaryName, ids: readonly number[]): Promise<void> {
  const known = values.get(dictionary) ?? new Map<number, (string | null)[]>()
  values.set(dictionary, known)
  const wanted = [...new Set(ids)].filter(id => !known.has(id))
  if (!wanted.length) return
  for (const [id, ...texts] of JSON.parse(await kept.entriesText(dictionary, JSON.stringify(wanted))) as Entry[]) known.set(id, texts)
}

function readerFor(name: string, { start, end, currencies }: Known): Reader {
  const own = (read: Reader['read']): Reader => ({ dictionary: null, read })
  if (name === 'BillingPeriodStart') return own(() => start)
  if (name === 'BillingPeriodEnd') return own(() => end)
  if (name === 'ChargePeriodStart') return own(({ time }, row) => instantOf(time.starts[time.codes[row]!]!))
  if (name === 'ChargePeriodEnd') return own(({ time }, row) => instantOf(time.ends[time.codes[row]!]!))
  if (name === 'BillingCurrency') return own(({ currency }, row) => currencies[currency[row]!]!)
  if (numbers.includes(name)) {
    const measure = measureNames.find(measure => measure.toLowerCase() === name.toLowerCase())!
    const bit = ABSENT[measure] ?? 0
    return own(({ absent, measures }, row) => (absent[row]! & bit ? null : amountTextOf(measures[measure], row)))
  }
  const dictionary = dictionaryFor(name)
  if (dictionary) {
    const place = (dictionaries[dictionary] as readonly string[]).indexOf(name)
    return { dictionary, read: (segment, row, values) => values.get(dictionary)!.get(keyOf(segment, dictionary, row))![place]! }
  }
  const parsed = new Map<number, string | null>()
  return {
    dictionary: 'others',
    read(segment, row, values) {
      const id = keyOf(segment, 'others', row)
      let text = parsed.get(id)
      if (text === undefined) {
        const json = values.get('others')!.get(id)![0]
        const value = json ? (JSON.parse(json) as Record<string, unknown>)[name] : null
        text = value === undefined || value === null ? null : typeof value === 'string' ? value : JSON.stringify(value)
        parsed.set(id, text)
      }
      return text
    },
  }
}
