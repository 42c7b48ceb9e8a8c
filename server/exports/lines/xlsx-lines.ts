import { Readable } from 'node:stream'
import { ZipFile } from 'yazl'
import type { FileFact, FileHead } from '../tables/table-writer'
import { cellText, columnLetters } from '../tables/xlsx'

/** The fastest packing: a sheet of a million lines is two gigabytes of text that repeats itself. */
const LEVEL = 1
/** So many lines are handed on at once. */
const LINES_AT_ONCE = 100
/** Cells that are made once and said again: values repeat, ids do not. */
const MOST_REMEMBERED = 200_000
/** A cell takes up to about so many bytes; beyond four gigabytes a part of the archive needs its larger form. */
const CELL_BYTES = 120
const FOUR_GIGABYTES = 2 ** 32

const XML = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n'
const MAIN = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main'
const OFFICE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships'
const PACKAGE = 'http://schemas.openxmlformats.org/package/2006'

const parts: Record<string, string> = {
  '[Content_Types].xml': `${XML}<Types xmlns="${PACKAGE}/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/><Override PartName="/xl/worksheets/sheet2.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/><Override PartName="/xl/styles.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.styles+xml"/></Types>`,
  '_rels/.rels': `${XML}<Relationships xmlns="${PACKAGE}/relationships"><Relationship Id="rId1" Type="${OFFICE}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
  'xl/_rels/workbook.xml.rels': `${XML}<Relationships xmlns="${PACKAGE}/relationships"><Relationship Id="rId1" Type="${OFFICE}/worksheet" Target="worksheets/sheet1.xml"/><Relationship Id="rId2" Type="${OFFICE}/worksheet" Target="worksheets/sheet2.xml"/><Relationship Id="rId3" Type="${OFFICE}/styles" Target="styles.xml"/></Relationships>`,
  'xl/workbook.xml': `${XML}<workbook xmlns="${MAIN}" xmlns:r="${OFFICE}"><sheets><sheet name="Charges" sheetId="1" r:id="rId1"/><sheet name="Notes" sheetId="2" r:id="rId2"/></sheets></workbook>`,
  'xl/styles.xml': `${XML}<styleSheet xmlns="${MAIN}"><fonts count="2"><font><sz val="11"/><name val="Calibri"/></font><font><b/><sz val="11"/><name val="Calibri"/></font></fonts><fills count="2"><fill><patternFill patternType="none"/></fill><fill><patternFill patternType="gray125"/></fill></fills><borders count="1"><border/></borders><cellStyleXfs count="1"><xf/></cellStyleXfs><cellXfs count="2"><xf xfId="0"/><xf xfId="0" fontId="1" applyFont="1"/></cellXfs></styleSheet>`,
}

type Lines = AsyncIterable<(string | null)[][]>

/**
 * A workbook of many lines, made while it is sent: nothing but the lines at hand is in memory. Amounts are numbers, which spreadsheets keep
 * to about fifteen digits. Whoever stops taking it ends the making.
 * @param rows about how many lines there will be.
 */
export function xlsxLines(heads: readonly FileHead[], facts: readonly FileFact[], lines: Lines, rows: number): Readable {
  const zip = new ZipFile()
  for (const [name, text] of Object.entries(parts)) zip.addBuffer(Buffer.from(text), name)
  zip.addBuffer(Buffer.from(notesSheet(facts)), 'xl/worksheets/sheet2.xml')
  const sheet = Readable.from(sheetPieces(heads, lines), { objectMode: false, highWaterMark: 1 << 20 })
  const out = zip.outputStream as Readable
  sheet.on('error', error => out.destroy(error))
  out.on('close', () => sheet.destroy())
  zip.addReadStream(sheet, 'xl/worksheets/sheet1.xml', {
    compressionLevel: LEVEL,
    forceZip64Format: rows * heads.length * CELL_BYTES > FOUR_GIGABYTES,
  })
  zip.end()
  return out
}

async function* sheetPieces(heads: readonly FileHead[], lines: Lines): AsyncGenerator<Buffer> {
  const remembered = new Map<string, string>()
  const text = (value: string): string => {
    const known = remembered.get(value)
    if (known !== undefined) return known
    const made = inlineText(value)
    if (remembered.size < MOST_REMEMBERED) remembered.set(value, made)
    return made
  }
  const columns = heads.map((_, i) => columnLetters(i))
  let row = 1
  const isAmount = heads.map(({ kind }) => kind === 'amount' || kind === 'share')
  yield Buffer.from(
    `${XML}<worksheet xmlns="${MAIN}"><sheetViews><sheetView workbookViewId="0"><pane ySplit="1" topLeftCell="A2" activePane="bottomLeft" state="frozen"/></sheetView></sheetViews><cols><col min="1" max="${heads.length}" width="20" customWidth="1"/></cols><sheetData><row r="1">${heads.map(({ name }, i) => textCell(name, `${columns[i]}1`, 1)).join('')}</row>`,
  )
  for await (const part of lines) {
    for (let from = 0; from < part.length; from += LINES_AT_ONCE) {
      let piece = ''
      for (const cells of part.slice(from, from + LINES_AT_ONCE)) {
        row++
        piece += `<row r="${row}">`
        for (let i = 0; i < cells.length; i++) {
          const cell = cells[i]!
          if (cell === null) continue
          const at = columns[i]! + row
          piece += isAmount[i] ? `<c r="${at}"><v>${cell}</v></c>` : `<c r="${at}" t="inlineStr">${text(cell)}</c>`
        }
        piece += '</row>'
      }
      yield Buffer.from(piece)
    }
  }
  yield Buffer.from('</sheetData></worksheet>')
}

const notesSheet = (facts: readonly FileFact[]) =>
  `${XML}<worksheet xmlns="${MAIN}"><cols><col min="1" max="1" width="24" customWidth="1"/><col min="2" max="2" width="110" customWidth="1"/></cols><sheetData>${facts
    .map(({ name, text }, i) => `<row r="${i + 1}">${textCell(name, `A${i + 1}`, 1)}${textCell(text, `B${i + 1}`)}</row>`)
    .join('')}</sheetData></worksheet>`

const inlineText = (value: string) => `<is><t xml:space="preserve">${escaped(cellText(value))}</t></is>`
const textCell = (value: string, at: string, style = 0) =>
  `<c r="${at}" t="inlineStr"${style ? ` s="${style}"` : ''}>${inlineText(value)}</c>`

const entities: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '\r': '&#13;' }
const escaped = (text: string) => text.replace(/[&<>\r]/g, found => entities[found]!)
