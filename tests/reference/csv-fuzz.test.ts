// CSV against papaparse, an independent reader, on random bytes that are CSV or nearly: whatever both take they read alike; what is refused
// is
// refused with a reason, and nothing is read in half.
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import fc from 'fast-check'
import Papa from 'papaparse'
import { afterAll, expect, it } from 'vitest'
import { CsvScanner } from '../../server/imports/readers/csv-scanner'
import { UnreadableFile } from '../../server/imports/readers/reader'
import { readRecords } from '../support/records'

const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-fuzz-'))
afterAll(() => rmSync(folder, { recursive: true }))

/** Reads text cut into pieces at given places: the joints of a stream. */
function scan(text: string, cuts: number[]): string[][] | string {
  const records: string[][] = []
  const decoder = new TextDecoder()
  const scanner = new CsvScanner(
    {
      compares: false,
      begin: header => {
        records.push(header)
        return true
      },
      bytes: (bytes, cells, starts, ends) => {
        records.push(Array.from({ length: cells }, (_, i) => decoder.decode(bytes.subarray(starts[i]!, ends[i]!))))
      },
      texts: () => {},
    },
    0x2c,
    bytes => decoder.decode(bytes),
  )
  const bytes = Buffer.from(text)
  try {
    let from = 0
    for (const cut of [...cuts.map(c => c % (bytes.length + 1)).sort((a, b) => a - b), bytes.length]) {
      scanner.push(bytes.subarray(from, cut))
      from = cut
    }
    scanner.end()
    return records
  } catch (error) {
    if (error instanceof UnreadableFile) return error.problem.reason
    throw error
  }
}

const soup = fc.string({ unit: fc.constantFrom('a', '1', 'é', '"', '""', ',', '\n', '\r\n', ' ', '=', '\0', 'xyz'), maxLength: 40 })

it('reads alike wherever a stream is cut', () => {
  fc.assert(
    fc.property(soup, fc.array(fc.nat(60), { maxLength: 6 }), (text, cuts) => {
      expect(scan(text, cuts)).toEqual(scan(text, []))
    }),
    { numRuns: 3000 },
  )
})

it('what both take both read alike', () => {
  let both = 0
  fc.assert(
    fc.property(
      soup.filter(text => !/\r(?!\n)/.test(text) && !(text.includes('\r\n') && /(?<!\r)\n/.test(text))),
      text => {
        const own = scan(text, [])
        const { data, errors } = Papa.parse<string[]>(text, {
          delimiter: ',',
          newline: text.includes('\r\n') ? '\r\n' : '\n',
          skipEmptyLines: true,
        })
        if (typeof own === 'string' || errors.length) return
        // a quote inside an unquoted cell is outside RFC 4180 and read by everyone differently
        if (/[^",\r\n]"/.test(text) || /"[^",\r\n]/.test(text.replaceAll('""', ''))) return
        // papaparse gives a last record for an empty quoted cell that RFC 4180 has none of
        expect(own.filter(record => record.length > 1 || record[0] !== '')).toEqual(
          data.filter(record => record.length > 1 || record[0] !== ''),
        )
        both++
      },
    ),
    { numRuns: 4000 },
  )
  expect(both).toBeGreaterThan(500)
})

it('a field of ten megabytes, line breaks in quotes, compressed or not, come whole', async () => {
  const long = `${'x"y\n'.repeat(2_500_000)}`
  const text = `a,b\n1,"${long.replaceAll('"', '""')}"\n2,z\n`
  for (const [i, bytes] of [Buffer.from(text), gzipSync(text)].entries()) {
    const path = join(folder, `long-${i}.csv`)
    writeFileSync(path, bytes)
    const records = await readRecords(path)
    expect(records.map(r => r.map(c => c.length))).toEqual([
      [1, 1],
      [1, long.length],
      [1, 1],
    ])
    expect(records[1]![1] === long).toBe(true)
  }
})
