import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import fc from 'fast-check'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { CsvScanner } from '../../../server/imports/readers/csv-scanner'
import { UnreadableFile } from '../../../server/imports/readers/reader'
import { readRecords } from '../../support/records'

let folder: string
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'rain-barrel-csv-'))
})
afterAll(() => rmSync(folder, { recursive: true }))

async function read(bytes: string | Buffer): Promise<string[][]> {
  const path = join(folder, 'file')
  writeFileSync(path, bytes)
  return readRecords(path)
}
const problemOf = (bytes: string | Buffer) =>
  read(bytes).then(
    () => null,
    (error: unknown) => (error instanceof UnreadableFile ? error.problem : error),
  )
const quoted = (cell: string) => (/[",\r\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell)

const cell = fc
  .string({ unit: fc.constantFrom('a', 'é', '☂', '"', ',', '\n', '\r\n', ' ', ';'), minLength: 1, maxLength: 8 })
  .filter(text => text.trim() !== '' || text.includes('"'))
it('reads back whatever is written by the rules', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.array(cell, { minLength: 2, maxLength: 4 }), { minLength: 1, maxLength: 8 }),
      fc.constantFrom('\n', '\r\n'),
      fc.boolean(),
      fc.boolean(),
      async (records, newline, last, zip) => {
        const text = records.map(record => record.map(quoted).join(',')).join(newline) + (last ? newline : '')
        expect(await read(zip ? gzipSync(text) : text)).toEqual(records)
      },
    ),
    { numRuns: 200 },
  )
})

it('says which cells equal those of the row before, wherever the pieces are cut', () => {
  const few = fc.constantFrom('', 'a', 'b', 'ab', 'abab', '"', 'a"b', ',', '\n', '1')
  fc.assert(
    fc.property(
      fc.array(fc.array(few, { minLength: 3, maxLength: 3 }), { minLength: 1, maxLength: 30 }),
      fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 5 }),
      fc.constantFrom('\n', '\r\n'),
      fc.array(fc.nat(3), { minLength: 1, maxLength: 7 }),
      (rows, sizes, newline, odd) => {
        // now and then a row with a cell more, or an empty line before it
        const records = rows.map((row, i) => (odd[i % odd.length] === 1 ? [...row, 'more'] : row))
        const bytes = Buffer.from(
          [['x', 'y', 'z'], ...records]
            .map((record, i) => (odd[i % odd.length] === 2 && i ? newline : '') + record.map(quoted).join(','))
            .join(newline),
        )
        const found: string[][] = []
        const claims: [string, string | undefined][] = []
        const scanner = new CsvScanner(
          {
            compares: true,
            begin: () => true,
            texts: () => {},
            bytes(buffer, count, starts, ends, same) {
              const before = found.at(-1)
              found.push(
                Array.from({ length: count }, (_, i) =>
                  same[i] === 1 ? before![i]! : Buffer.from(buffer.subarray(starts[i]!, ends[i]!)).toString(),
                ),
              )
              claims.push(
                ...found.at(-1)!.flatMap((cell, i): [string, string | undefined][] => (same[i] === 1 ? [[cell, before?.[i]]] : [])),
              )
            },
          },
          0x2c,
          cell => Buffer.from(cell).toString(),
        )
        for (let from = 0, i = 0; from < bytes.length; i++) {
          scanner.push(bytes.subarray(from, from + sizes[i % sizes.length]!))
          from += sizes[i % sizes.length]!
        }
        scanner.end()
        expect(found).toEqual(records)
        expect(claims.every(([cell, before]) => cell === before)).toBe(true)
      },
    ),
    { numRuns: 1000 },
  )
})

it('keeps records whole over the joints of large files', async () => {
  const records = Array.from({ length: 60_000 }, (_, i) => [String(i), `text, with "quotes"\nand breaks ${i}`])
  const text = records.map(record => record.map(quoted).join(',')).join('\n')
  expect(text.length).toBeGreaterThan(2_000_000)
  expect(await read(text)).toEqual(records)
  expect(await read(gzipSync(text))).toEqual(records)
})

it('says what is wrong with a file that cannot be read', async () => {
  expect(await problemOf('a,b\n1,"open')).toMatchObject({ reason: 'a quoted text is not closed' })
  expect(await problemOf('a,b\n1,"x"y\n')).toMatchObject({ reason: 'a quote stands where none may be' })
  expect(await problemOf(Buffer.from('\uFEFFa,b\n1,2\n', 'utf16le'))).toMatchObject({ reason: expect.stringContaining('UTF-16') })
  expect(await problemOf(Buffer.from([0xc3, 0x28, 0x2c, 0x62, 0x0a]))).toMatchObject({ reason: expect.stringContaining('not UTF-8') })
  expect(await problemOf(gzipSync('a,b\n1,2\n').subarray(0, 20))).toMatchObject({ reason: expect.stringContaining('cut short') })
  expect(await problemOf(Buffer.concat([gzipSync('a,b\n1,2\n').subarray(0, 12), Buffer.from('garbage garbage')]))).toMatchObject({
    reason: expect.stringContaining('damaged'),
  })
})

it('passes over a million empty lines that follow each other, and not one more', async () => {
  const empty = '\n'.repeat(1_000_000)
  expect(await read(`a,b\n${empty}1,2\n${empty}3,4`)).toEqual([
    ['a', 'b'],
    ['1', '2'],
    ['3', '4'],
  ])
  expect(await problemOf(`a,b\n1,2\n${empty}\n3,4`)).toMatchObject({ reason: expect.stringContaining('more than 1000000 empty lines') })
})

it('takes a byte order mark off, and an empty file as no records', async () => {
  expect(await read('\uFEFFa,b\n1,2\n')).toEqual([
    ['a', 'b'],
    ['1', '2'],
  ])
  expect(await read('')).toEqual([])
})
