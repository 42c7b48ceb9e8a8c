import ExcelJS from 'exceljs'
import { asText } from '../writer'
import type { TableWriter } from './table-writer'

/** A workbook of one sheet: a frozen heading, amounts as numbers, the total as a live sum where it is one. */
export const xlsxTable: TableWriter = {
  format: 'xlsx',
  async write({ title, facts, heads, rows, total }) {
    const book = new ExcelJS.Workbook()
    book.creator = 'Rain Barrel'
    const sheet = book.addWorksheet('Spend', { views: [{ state: 'frozen', ySplit: 3, xSplit: 0 }] })
    sheet.addRow([asText(title)]).font = { name: 'Georgia', size: 14, bold: true }
    sheet.addRow([asText(facts.join(' · '))])
    const heading = sheet.addRow(heads.map(head => asText(head.name)))
    heading.font = { bold: true, color: { argb: 'FF17695B' } }
    heading.eachCell((cell, i) => {
      cell.border = { bottom: { style: 'thin', color: { argb: 'FFCFC9BA' } } }
      if (heads[i - 1]!.kind !== 'text') cell.alignment = { horizontal: 'right' }
    })
    const value = (cell: string | null, i: number) => (cell === null ? null : heads[i]!.kind === 'text' ? asText(cell) : Number(cell))
    for (const row of rows) sheet.addRow(row.map(value))
    const count = rows.length
    if (total) {
      const summed = (i: number) => heads[i]!.kind === 'amount' && count > 0
      const row = sheet.addRow(
        total.map((cell, i) =>
          i === 0
            ? 'total'
            : cell === null
              ? null
              : summed(i)
                ? { formula: `SUM(${letter(i)}4:${letter(i)}${3 + count})`, result: Number(cell) }
                : value(cell, i),
        ),
      )
      row.font = { bold: true }
      row.eachCell(cell => {
        cell.border = { top: { style: 'thin', color: { argb: 'FF16231F' } } }
      })
    }
    sheet.columns.forEach((column, i) => {
      column.width = heads[i]?.kind === 'text' ? 26 : 15
      column.numFmt =
        heads[i]?.kind === 'amount' ? '#,##0.00;[Red]−#,##0.00;–' : heads[i]?.kind === 'share' ? '0.0 %' : (undefined as never)
    })
    return new Uint8Array((await book.xlsx.writeBuffer()) as ArrayBuffer)
  },
}

/** A, B … Z, AA: the name of a column by its place from 0. */
function letter(place: number): string {
  const before = Math.floor(place / 26)
  return (before ? letter(before - 1) : '') + String.fromCharCode(65 + (place % 26))
}
