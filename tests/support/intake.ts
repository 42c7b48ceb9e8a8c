import { numberColumns } from '../../core/focus/intake/charge'
import { Intake } from '../../core/focus/intake/intake'
import type { FileProblem } from '../../core/focus/problem'
import { dictionaryNames, type DictionaryName } from '../../core/focus/star'
import { beyondScaled, fromLimbs } from '../../core/money/limbs'
import { decodeUtf8 } from '../../server/imports/readers/csv'
import { CsvScanner } from '../../server/imports/readers/csv-scanner'

/** A charge as a test looks at it. */
export type Taken = {
  currency: string
  start: number
  end: number
  periodStart: number
  amounts: Record<string, bigint>
  keys: number[]
  entries: Record<DictionaryName, (string | null)[]>
}

/** Takes rows under a header, as texts, as bytes or through a file, and gives the charges with what was found wrong. */
export function take(header: string[], rows: string[][], way: 'text' | 'bytes' | 'file' = 'text') {
  const problems: FileProblem[] = []
  const entries: Record<string, (string | null)[][]> = Object.fromEntries(dictionaryNames.map(name => [name, []]))
  const intake = new Intake(header, {
    decode: decodeUtf8,
    note: problem => problems.push(problem),
    entryId: (name, values) => entries[name]!.push(values) - 1,
  })
  const charges: Taken[] = []
  const end = (cells: number) => {
    const charge = intake.endRow('file', cells)
    if (!charge) return
    charges.push({
      currency: charge.currency,
      start: charge.times.ChargePeriodStart,
      end: charge.times.ChargePeriodEnd,
      periodStart: charge.times.BillingPeriodStart,
      keys: [...charge.keys],
      amounts: Object.fromEntries(
        numberColumns.map((name, i) => [name, fromLimbs(charge.high[i]!, charge.low[i]!) + beyondScaled(charge.beyond[i]!)]),
      ),
      entries: Object.fromEntries(dictionaryNames.map((name, i) => [name, entries[name]![charge.keys[i]!]!])) as Taken['entries'],
    })
  }
  if (way === 'file') {
    const scanner = new CsvScanner(
      {
        compares: true,
        begin: () => true,
        texts: () => {},
        bytes(bytes, cells, starts, ends, same) {
          if (cells === header.length) intake.setRow(bytes, starts, ends, same)
          end(cells)
        },
      },
      0x2c,
      bytes => decodeUtf8(bytes)!,
    )
    const quoted = (cell: string) => (/[",\r\n]/.test(cell) || cell.length % 3 === 1 ? `"${cell.replaceAll('"', '""')}"` : cell)
    const bytes = Buffer.from([header, ...rows].map(cells => cells.map(quoted).join() + '\n').join(''))
    // pieces of all sizes, so that records and cells are cut anywhere
    for (let from = 0, size = 1; from < bytes.length; from += size, size = ((size * 7) % 61) + 1)
      scanner.push(bytes.subarray(from, from + size))
    scanner.end()
    return { intake, problems, charges }
  }
  for (const cells of rows) {
    if (cells.length === header.length && way === 'text') cells.forEach((cell, i) => intake.setText(i, cell))
    else if (cells.length === header.length) {
      const pieces = cells.map(cell => Buffer.from(cell))
      const starts = Int32Array.from(pieces, (_, i) => pieces.slice(0, i).reduce((n, piece) => n + piece.length + 1, 0))
      intake.setRow(
        Buffer.concat(pieces.flatMap(piece => [piece, Buffer.from(',')])),
        starts,
        Int32Array.from(starts, (start, i) => start + pieces[i]!.length),
        new Uint8Array(cells.length),
      )
    }
    end(cells.length)
  }
  return { intake, problems, charges }
}
