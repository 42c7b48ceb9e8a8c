import { Intake, numberColumns } from '../../core/focus/intake'
import type { FileProblem } from '../../core/focus/problem'
import { dictionaryNames, type DictionaryName } from '../../core/focus/star'
import { fromLimbs } from '../../core/spend/limbs'
import { decodeUtf8 } from '../../server/imports/readers/csv'

/** A charge as a test looks at it. */
export type Taken = { currency: string, start: number, end: number, periodStart: number, amounts: Record<string, bigint>, keys: number[], entries: Record<DictionaryName, (string | null)[]> }

/** Takes rows under a header, as texts or as bytes, and gives the charges with what was found wrong. */
export function take(header: string[], rows: string[][], way: 'text' | 'bytes' = 'text') {
  const problems: FileProblem[] = []
  const entries: Record<string, (string | null)[][]> = Object.fromEntries(dictionaryNames.map(name => [name, []]))
  const intake = new Intake(header, { decode: decodeUtf8, note: problem => problems.push(problem), entryId: (name, values) => entries[name]!.push(values) - 1 })
  const charges: Taken[] = []
  for (const cells of rows) {
    if (way === 'text') cells.slice(0, header.length).forEach((cell, i) => intake.setText(i, cell))
    else if (cells.length === header.length) {
      const pieces = cells.map(cell => Buffer.from(cell))
      const starts = Int32Array.from(pieces, (_, i) => pieces.slice(0, i).reduce((n, piece) => n + piece.length + 1, 0))
      intake.setRow(Buffer.concat(pieces.flatMap(piece => [piece, Buffer.from(',')])), starts, Int32Array.from(starts, (start, i) => start + pieces[i]!.length))
    }
    const charge = intake.endRow('file', cells.length)
    if (!charge) continue
    charges.push({
      currency: charge.currency, start: charge.times.ChargePeriodStart, end: charge.times.ChargePeriodEnd, periodStart: charge.times.BillingPeriodStart, keys: [...charge.keys],
      amounts: Object.fromEntries(numberColumns.map((name, i) => [name, fromLimbs(charge.high[i]!, charge.low[i]!)])),
      entries: Object.fromEntries(dictionaryNames.map((name, i) => [name, entries[name]![charge.keys[i]!]!])) as Taken['entries'],
    })
  }
  return { intake, problems, charges }
}
