import Papa from 'papaparse'
import { addDays } from '../../../core/time/day'
import { withinSaid } from '../../../shared/words/within'
import type { TableFormat } from '../../../shared/table-formats'
import type { Scope } from '../../../core/spend/question'
import { tableWriters } from '../tables'
import { asText } from '../estimate/writer'
import { chargeLines, lineKind, type LineSource } from './charge-lines'
import { xlsxLines } from './xlsx-lines'

/** Charge lines as a file: about how many there are, and of which cost centres alone, where not of all. */
export type LinesTask = {
  scope: Scope
  columns: string[]
  format: TableFormat
  charges: number
  within: string[] | null
  /** Further columns of every line, what they hold by its mark, and lines below the charges. */
  beside?: { columns: readonly string[]; marked: readonly (string | null)[][]; below: readonly (string | null)[][] }
}

/** The bytes of the file, piece by piece. CSV and XLSX are made as the lines are read; the other formats whole. */
export async function* linesFile(
  kept: LineSource,
  { scope, columns: own, format, charges, within, beside }: LinesTask,
): AsyncGenerator<Uint8Array> {
  const columns = [...own, ...(beside?.columns ?? [])]
  const lines = withBelow(chargeLines(kept, own, beside?.marked), beside?.below ?? [])
  if (format === 'csv') return yield* csvPieces(columns, lines)
  const facts = [
    { name: 'Period', text: `${scope.start} to ${addDays(scope.end, -1)}` },
    { name: 'Charges', text: String(charges) },
    ...(within ? [{ name: 'Of the company', text: withinSaid(within) }] : []),
  ]
  const heads = columns.map(name => ({ name, kind: lineKind(name) }))
  if (format === 'xlsx') return yield* xlsxLines(heads, facts, lines, charges) as AsyncIterable<Buffer>
  const rows: (string | null)[][] = []
  for await (const part of lines) for (const row of part) rows.push(row)
  yield await tableWriters[format].write({ title: 'Charges', facts, heads, rows, total: null })
}

type Lines = AsyncIterable<(string | null)[][]>

async function* withBelow(lines: Lines, below: readonly (string | null)[][]): AsyncGenerator<(string | null)[][]> {
  yield* lines
  if (below.length) yield [...below]
}

async function* csvPieces(columns: string[], lines: Lines): AsyncGenerator<Uint8Array> {
  const piece = (rows: unknown[][]) => new TextEncoder().encode(Papa.unparse(rows, { newline: '\r\n' }) + '\r\n')
  yield piece([columns])
  for await (const rows of lines)
    yield piece(rows.map(row => row.map((cell, i) => (cell !== null && lineKind(columns[i]!) === 'text' ? asText(cell) : cell))))
}
