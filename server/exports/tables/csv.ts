import Papa from 'papaparse'
import { asText } from '../writer'
import type { TableWriter } from './table-writer'

/** CSV by RFC 4180; what a spreadsheet would take for a formula is written as text. */
export const csvTable: TableWriter = {
  format: 'csv',
  async write({ heads, rows, total }) {
    const line = (cells: (string | null)[]) =>
      cells.map((cell, i) => (cell === null ? '' : heads[i]!.kind === 'text' ? asText(cell) : cell))
    const totalLine = total && total.map((cell, i) => (i === 0 ? 'total' : (cell ?? '')))
    return new TextEncoder().encode(
      Papa.unparse([heads.map(head => asText(head.name)), ...rows.map(line), ...(totalLine ? [totalLine] : [])], { newline: '\r\n' }) +
        '\r\n',
    )
  },
}
