import Papa from 'papaparse'
import { asText } from '../estimate/writer'
import type { TableWriter } from './table-writer'

/**
 * CSV by RFC 4180; what a spreadsheet would take for a formula is written as text. There is no line for the total: whoever adds the rows up
 * would have it twice. What there is to know beside the figures goes into a second file.
 */
export const csvTable: TableWriter = {
  async write({ heads, rows }) {
    const line = (cells: (string | null)[]) =>
      cells.map((cell, i) => (cell === null ? '' : heads[i]!.kind === 'text' ? asText(cell) : cell))
    return new TextEncoder().encode(Papa.unparse([heads.map(head => asText(head.name)), ...rows.map(line)], { newline: '\r\n' }) + '\r\n')
  },
}
