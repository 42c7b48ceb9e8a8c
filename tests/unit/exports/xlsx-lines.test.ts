// A workbook of charge lines that is made while it is sent: read back by another library, and given up with its reader.
import { once } from 'node:events'
import { setTimeout } from 'node:timers/promises'
import ExcelJS from 'exceljs'
import { expect, it } from 'vitest'
import type { FileHead } from '../../../server/exports/tables/table-writer'
import { xlsxLines } from '../../../server/exports/lines/xlsx-lines'

const heads: FileHead[] = [
  { name: 'Resource & <name>', kind: 'text' },
  { name: 'when', kind: 'time' },
  { name: 'cost', kind: 'amount' },
]
async function* linesOf(...parts: (string | null)[][][]) {
  yield* parts
}

it('holds every line, whatever its texts, under a heading, with notes beside', async () => {
  const rows = [
    ['a <b> & "c" \u0000\uD800', '2026-10-01T00:00:00Z', '1.5'],
    ['=SUM(A1)', null, '-0.000000000000001'],
    [' spaces  and\r\nlines ', '2026-10-01T00:00:00Z', '1000000000000000'],
    ['__proto__', null, null],
  ]
  const chunks: Buffer[] = []
  for await (const chunk of xlsxLines(heads, [{ name: 'Period', text: 'October & more' }], linesOf(rows.slice(0, 1), rows.slice(1)), 4))
    chunks.push(chunk as Buffer)
  const book = new ExcelJS.Workbook()
  await book.xlsx.load(new Uint8Array(Buffer.concat(chunks)).buffer)
  const cells = book.worksheets[0]!.getSheetValues() as unknown[][]
  expect(cells.slice(1).map(row => Array.from({ length: 3 }, (_, i) => row[i + 1] ?? null))).toEqual([
    ['Resource & <name>', 'when', 'cost'],
    ['a <b> & "c" \uFFFD\uFFFD', '2026-10-01T00:00:00Z', 1.5],
    ["'=SUM(A1)", null, -1e-15],
    [' spaces  and\r\nlines ', '2026-10-01T00:00:00Z', 1e15],
    ['__proto__', null, null],
  ])
  expect(book.worksheets[1]!.getCell('B1').value).toBe('October & more')
})

it('ends when whoever takes it leaves', async () => {
  let made = 0
  let isEnded = false
  async function* endless() {
    try {
      for (;;) {
        made++
        await setTimeout(0)
        yield Array.from({ length: 500 }, (_, i) => [`resource ${made} ${i} ${Math.random()}`, null, String(i)])
      }
    } finally {
      isEnded = true
    }
  }
  const out = xlsxLines(heads, [], endless(), 1e9)
  while (made < 5) if (out.read() === null) await once(out, 'readable')
  out.destroy()
  await once(out, 'close')
  for (let waited = 0; !isEnded && waited < 100; waited++) await setTimeout(20)
  expect(isEnded).toBe(true)
  const before = made
  await setTimeout(100)
  expect(made).toBe(before)
})
