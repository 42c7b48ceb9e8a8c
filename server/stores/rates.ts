import { Decimal } from '../../core/money/decimal'
import { wasCurrency } from '../../core/money/currency'
import type { Rate } from '../../core/money/rates'
import { isDay } from '../../core/time/day'
import type { Db, Session } from '../db/database'
import { exchangeRate } from '../db/schema'
import { Problem } from '../problems/problem'

/** All exchange rates, newest first, with who brought them. */
export async function listRates(db: Db) {
  const rows = await db.select().from(exchangeRate)
  return rows
    .map(row => ({ ...row, rate: new Decimal(row.rate).toFixed() }))
    .sort((a, b) => (a.validFrom === b.validFrom ? (a.from < b.from ? -1 : 1) : a.validFrom < b.validFrom ? 1 : -1))
}

/**
 * Reads the lines of a CSV with the columns from, to, valid from and rate. @throws Problem naming every line that is wrong; then nothing is
 * taken.
 */
export function readRates(lines: Record<string, string>[]): Rate[] {
  const errors: { field: string; reason: string }[] = []
  const seen = new Set<string>()
  const rates = lines.map((line, i): Rate => {
    const rate = {
      from: (line.from ?? '').trim(),
      to: (line.to ?? '').trim(),
      validFrom: (line['valid from'] ?? '').trim(),
      rate: (line.rate ?? '').trim(),
    }
    const wrong = (field: string, reason: string) => errors.push({ field: `row ${i + 1}, ${field}`, reason })
    for (const side of ['from', 'to'] as const)
      if (!wasCurrency(rate[side])) wrong(side, `«${rate[side]}» is not an ISO 4217 currency such as EUR`)
    if (rate.from === rate.to) wrong('to', 'is the same currency')
    if (!isDay(rate.validFrom)) wrong('valid from', `«${rate.validFrom}» is not a day such as 2026-11-01`)
    if (!/^\d+(\.\d+)?$/.test(rate.rate) || Number(rate.rate) === 0) wrong('rate', `«${rate.rate}» is not a rate above zero such as 0.9215`)
    const key = `${rate.from} ${rate.to} ${rate.validFrom}`
    if (seen.has(key)) wrong('valid from', 'the same rate stands in the file twice')
    seen.add(key)
    return rate
  })
  if (!lines.length) errors.push({ field: 'the file', reason: 'has no rates below its header' })
  if (errors.length)
    throw new Problem(
      'invalid',
      'wrong-rates',
      'The rates were not taken',
      errors
        .slice(0, 20)
        .map(({ field, reason }) => `${field}: ${reason}`)
        .join('; '),
      errors,
    )
  return rates
}

/** Rates as they are kept: how many, and a list as JSON text, made where they were read. */
export type PackedRates = { count: number; text: string }

/** Keeps rates; one of the same pair and day is replaced. @returns how many are new or other than before. */
export async function saveRates(database: Session, { text }: PackedRates, who: string): Promise<number> {
  const changed = await database.query(
    `insert into exchange_rate ("from", "to", valid_from, rate, who, loaded_at)
      select r."from", r."to", r."validFrom", r.rate, $2, now()
      from jsonb_to_recordset($1::jsonb) as r("from" text, "to" text, "validFrom" date, rate numeric)
      on conflict ("from", "to", valid_from) do update set rate = excluded.rate, who = excluded.who, loaded_at = excluded.loaded_at
        where exchange_rate.rate <> excluded.rate
      returning 1`,
    [text, who],
  )
  return changed.length
}
