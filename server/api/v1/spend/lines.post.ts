import { Readable } from 'node:stream'
import { setResponseHeader } from 'h3'
import Papa from 'papaparse'
import { addDays } from '../../../../core/time/day'
import { chargeLines, isLineColumn, lineKind } from '../../../engine/charge-lines'
import { MOST_SHEET_ROWS, tableMimes } from '../../../exports/tables/table-writer'
import { xlsxLines } from '../../../exports/tables/xlsx-lines'
import { asText } from '../../../exports/writer'
import { checkScope } from '../../../http/question'
import { Problem } from '../../../http/problem'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { sendPieces } from '../../../http/send-stream'

/** The charge lines behind what is shown. CSV and XLSX are sent as they are read; the other formats are made whole first. */
export default route(operations.spend.lines, async ({ event, cube, charges, database, exporter, body }) => {
  const { question, columns, format } = body
  checkScope({ ...question, splitBy: [] })
  const wrong = columns.filter(name => !isLineColumn(name))
  if (wrong.length)
    throw new Problem(
      422,
      'no-column',
      'Charges have no such column',
      `${wrong.map(name => `«${name}»`).join(', ')}: use FOCUS columns, or a provider's own column x_NAME.`,
    )
  const lines = chargeLines({ cube, charges, database }, question, columns)
  setResponseHeader(event, 'content-type', tableMimes[format])
  if (format === 'csv') return sendPieces(event, Readable.from(csvPieces(columns, lines)))
  const { result: narrowed } = await cube.ask('narrowed', question)
  if (narrowed.charges > MOST_SHEET_ROWS)
    throw new Problem(
      422,
      'too-many-rows',
      'These are too many lines for this format',
      `${narrowed.charges} lines: take CSV, which has no bound, or narrow what is shown.`,
    )
  const facts = [
    { name: 'Period', text: `${question.start} to ${addDays(question.end, -1)}` },
    { name: 'Charges', text: String(narrowed.charges) },
  ]
  const heads = columns.map(name => ({ name, kind: lineKind(name) }))
  if (format === 'xlsx') return sendPieces(event, xlsxLines(heads, facts, lines, narrowed.charges))
  const rows: (string | null)[][] = []
  for await (const part of lines) for (const row of part) rows.push(row)
  const bytes = await exporter.writeTable(format, { title: 'Charges', facts, heads, rows, total: null })
  return Buffer.from(bytes)
})

async function* csvPieces(columns: string[], lines: AsyncIterable<(string | null)[][]>): AsyncGenerator<string> {
  yield Papa.unparse([columns]) + '\r\n'
  for await (const rows of lines)
    yield (
      Papa.unparse(
        rows.map(row => row.map((cell, i) => (cell !== null && lineKind(columns[i]!) === 'text' ? asText(cell) : cell))),
        { newline: '\r\n' },
      ) + '\r\n'
    )
}
