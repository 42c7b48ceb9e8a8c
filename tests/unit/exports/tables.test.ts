// Files of tables: what their formulas come to, what stands beside the figures, and what no format may lose.
import ExcelJS from 'exceljs'
import { parquetMetadata, parquetReadObjects } from 'hyparquet'
import { compressors } from 'hyparquet-compressors'
import { HyperFormula } from 'hyperformula'
import { expect, it } from 'vitest'
import { packAnswer } from '../../../core/spend/packed'
import type { Answer } from '../../../core/spend/question'
import { tableFile } from '../../../server/use-cases/table-file'
import { tableWriters } from '../../../server/exports/tables'
import { spendFileTable, type SpendTableTask } from '../../../server/exports/tables/spend-table'
import type { FileTable } from '../../../server/exports/tables/table-writer'
import type { TableFormat } from '../../../shared/table-formats'

const row = (ServiceName: string, amount: string) => ({ values: { ServiceName }, start: null, currency: 'EUR', amount })
const now: Answer = { totals: [], rest: null, rows: [row('Servers', '120.5'), row('constructor', '-20.25')] }
const before: Answer = { totals: [], rest: null, rows: [row('Servers', '100'), row('Archive', '50')] }
const period = { start: '2026-10-01', end: '2026-11-01' }
const compared = { start: '2026-09-01', end: '2026-10-01' }

async function written(format: TableFormat, change: Partial<FileTable> = {}): Promise<Uint8Array> {
  const { bytes } = await tableFile(
    {
      seen: {
        ask: async (call: string, asked: { start: string; splitBy: string[] }[]) => ({
          revision: 7,
          result:
            call === 'facts'
              ? { sources: [], damaged: [], firstDay: null, lastDay: null, within: ['Fleet'], reportCurrency: null }
              : asked.map(({ start, splitBy }) => packAnswer(start === period.start ? now : before, splitBy)),
        }),
      },
      exporter: { writeSpendTable: (spend: SpendTableTask) => tableWriters[format].write({ ...spendFileTable(spend), ...change }) },
    } as never,
    {
      question: { measure: 'billedCost', splitBy: ['ServiceName'], grain: 'month', ...period, keep: {}, leaveOut: {}, conditions: [] },
      format,
      currency: 'EUR',
      across: null,
      columns: ['before', 'difference', 'changeShare'],
      before: compared,
      title: 'Billed, October',
      part: 'table',
    },
  )
  return bytes
}
const text = (bytes: Uint8Array) => new TextDecoder().decode(bytes)

async function sheets(bytes: Uint8Array) {
  const book = new ExcelJS.Workbook()
  await book.xlsx.load(bytes.buffer as ArrayBuffer)
  return Object.fromEntries(
    book.worksheets.map(sheet => [
      sheet.name,
      Array.from({ length: sheet.rowCount }, (_, i) =>
        Array.from({ length: sheet.columnCount }, (_, k) => sheet.getRow(i + 1).getCell(k + 1).value as never),
      ),
    ]),
  ) as Record<string, (string | number | null | { formula: string; result: number })[][]>
}

it('a workbook’s totals, recalculated, are the figures it shows; what is gone has a row', async () => {
  const { Spend } = await sheets(await written('xlsx'))
  // worked out by hand: 120.5 − 20.25 = 100.25, before 150, −49.75, −33.1667 %
  expect(Spend![3]!).toEqual(['service', 'billed, EUR', 'before', 'difference', 'change'])
  expect(Spend!.slice(4)).toEqual([
    ['Servers', 120.5, 100, 20.5, 0.205],
    ['Archive', 0, 50, -50, -1],
    ['constructor', -20.25, null, -20.25, null],
  ])
  const totals = Spend![2]! as { formula: string; result: number }[]
  expect(totals.slice(1).map(cell => cell.result)).toEqual([100.25, 150, -49.75, -0.331667])
  const engine = HyperFormula.buildFromArray(
    Spend!.map(cells => cells.map(cell => (cell !== null && typeof cell === 'object' ? `=${cell.formula}` : cell))),
    { licenseKey: 'gpl-v3' },
  )
  const value = (column: number) => engine.getCellValue({ sheet: 0, row: 2, col: column }) as number
  expect([1, 2, 3].map(value)).toEqual([100.25, 150, -49.75])
  expect(value(4)).toBeCloseTo(-49.75 / 150, 9)
  engine.setCellContents({ sheet: 0, row: 4, col: 1 }, 220.5)
  expect(value(1)).toBe(200.25)
  expect(value(4)).toBeCloseTo((200.25 - 150) / 150, 9)
})

it('says in every format what the figures are of, and CSV has no line that doubles a pivot', async () => {
  const facts = {
    ...{ Period: '2026-10-01 to 2026-10-31', 'Compared with': '2026-09-01 to 2026-09-30', 'Amounts in': 'EUR' },
    'Of the company': 'only Fleet and what lies below',
  }
  expect(text(await written('csv'))).toBe(
    [
      'service,"billed, EUR",before,difference,change',
      'Servers,120.5,100,20.5,0.205',
      'Archive,0,50,-50,-1',
      'constructor,-20.25,,-20.25,',
      '',
    ].join('\r\n'),
  )
  expect(JSON.parse(text(await written('json')))).toMatchObject({ facts, total: { 'billed, EUR': '100.25' } })
  const parquet = await written('parquet')
  const metadata = parquetMetadata(parquet.buffer as ArrayBuffer)
  expect(Object.fromEntries(metadata.key_value_metadata!.map(({ key, value }) => [key, value]))).toMatchObject(facts)
  const { Notes } = await sheets(await written('xlsx'))
  expect(Object.fromEntries(Notes as [string, string][])).toMatchObject(facts)
})

it('keeps every digit, every name and every instant; what XML cannot hold is replaced', async () => {
  const finest = '1.00000000000000000001'
  const table: Partial<FileTable> = {
    heads: [
      { name: '__proto__', kind: 'text' },
      { name: 'when', kind: 'time' },
      { name: 'price', kind: 'amount' },
      { name: 'amount', kind: 'amount' },
    ],
    rows: [
      ['a\u0000b\uD800', '2026-10-01T00:00:00Z', finest, '1000000000000000.000000000000001'],
      ['=1+1', null, null, '-0.5'],
    ],
    total: null,
  }
  const { Spend } = await sheets(await written('xlsx', table))
  expect(Spend!.slice(4).map(cells => cells[0])).toEqual(['a\uFFFDb\uFFFD', "'=1+1"])
  const parquet = await written('parquet', table)
  const rows = await parquetReadObjects({ file: parquet.buffer as ArrayBuffer, compressors })
  expect(rows[0]!.when).toEqual(new Date('2026-10-01T00:00:00Z'))
  expect(
    parquetMetadata(parquet.buffer as ArrayBuffer)
      .schema.slice(2)
      .map(({ logical_type, scale }) => logical_type?.type ?? scale),
  ).toEqual(['TIMESTAMP', 20, 15])
  const json = JSON.parse(text(await written('json', table))) as { rows: Record<string, string>[] }
  expect(Object.entries(json.rows[0]!)).toContainEqual(['price', finest])
  expect(Object.keys(json.rows[0]!)).toContain('__proto__')
})
