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
    cells.forEach((cell, i) => {
      if (i >= header.length) return
      const bytes = Buffer.from(`x${cell}y`)
      if (way === 'bytes') intake.setBytes(i, bytes, 1, bytes.length - 1)
      else intake.setText(i, cell)
    })
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
