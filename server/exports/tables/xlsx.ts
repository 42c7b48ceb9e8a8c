import ExcelJS from 'exceljs'
import { asText } from '../estimate/writer'
import type { FileTable, TableWriter } from './table-writer'

/** The rows of a sheet above the table: title, a blank one, and the totals, which stand outside it; then the heading. */
const TOTALS_ROW = 3
const HEADING_ROW = 4

/**
 * A workbook: the table under a frozen heading, amounts as numbers; above it, outside the table, the totals as live formulas over all of
 * its rows; and a sheet with what there is to know beside the figures.
 */
export const xlsxTable: TableWriter = {
  async write(table) {
    const { title, facts, heads, rows, total } = table
    const book = new ExcelJS.Workbook()
    book.creator = 'Rain Barrel'
    const sheet = book.addWorksheet('Spend', { views: [{ state: 'frozen', ySplit: HEADING_ROW, xSplit: 0 }] })
    sheet.addRow([cellText(title)]).font = { name: 'Georgia', size: 14, bold: true }
    sheet.addRow([])
    const totals = sheet.addRow(total ? totalCells(table, total) : [])
    totals.font = { bold: true }
    const heading = sheet.addRow(heads.map(head => cellText(head.name)))
    heading.font = { bold: true, color: { argb: 'FF17695B' } }
    heading.eachCell((cell, i) => {
      cell.border = { bottom: { style: 'thin', color: { argb: 'FFCFC9BA' } } }
      if (heads[i - 1]!.kind !== 'text') cell.alignment = { horizontal: 'right' }
    })
    const value = (cell: string | null, i: number) => (cell === null ? null : heads[i]!.kind === 'text' ? cellText(cell) : Number(cell))
    for (const row of rows) sheet.addRow(row.map(value))
    sheet.columns.forEach((column, i) => {
      column.width = heads[i]?.kind === 'text' ? 26 : 15
      column.numFmt =
        heads[i]?.kind === 'amount' ? '#,##0.00;[Red]−#,##0.00;–' : heads[i]?.kind === 'share' ? '0.0 %' : (undefined as never)
    })
    const notes = book.addWorksheet('Notes')
    for (const { name, text } of facts) notes.addRow([cellText(name), cellText(text)])
    notes.getColumn(1).width = 24
    notes.getColumn(2).width = 110
    return new Uint8Array((await book.xlsx.writeBuffer()) as ArrayBuffer)
  },
}

/** The totals: formulas where the rows give them, with the figure they come to; figures where they do not. */
function totalCells({ heads, rows }: FileTable, total: (string | null)[]): ExcelJS.CellValue[] {
  const [first, last] = [HEADING_ROW + 1, HEADING_ROW + rows.length]
  return total.map((cell, i) => {
    const of = heads[i]!.total
    if (i === 0 && heads[i]!.kind === 'text') return 'Total'
    if (cell === null) return null
    if (!of || !rows.length) return Number(cell)
    if (of === 'sum') return { formula: `SUM(${columnLetters(i)}${first}:${columnLetters(i)}${last})`, result: Number(cell) }
    const [from, to] = [`${columnLetters(of.change.from)}${TOTALS_ROW}`, `${columnLetters(of.change.to)}${TOTALS_ROW}`]
    return { formula: `(${to}-${from})/ABS(${from})`, result: Number(cell) }
  })
}

/** A text for a cell: never a formula, and without the characters that XML does not allow. */
export const cellText = (text: string): string =>
  asText(text.replace(/[^\t\n\r\u{20}-\u{D7FF}\u{E000}-\u{FFFD}\u{10000}-\u{10FFFF}]/gu, '\u{FFFD}'))

/** A, B … Z, AA: the name of a column by its place from 0. */
export function columnLetters(place: number): string {
  const before = Math.floor(place / 26)
  return (before ? columnLetters(before - 1) : '') + String.fromCharCode(65 + (place % 26))
}
