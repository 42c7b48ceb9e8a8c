import { sql, type SQL } from 'drizzle-orm'
import { scaled, scaledText } from '../../core/money/scaled'
import type { ImportChange, ImportPeriod } from '../../shared/contracts/imports'
import type { Db, Tx } from '../db/client'

type SumRow = { start: string, currency: string, rows: number, billed: string, effective: string }

/** Sums of charges as the database has them now, per billing period and currency, in full. */
export async function databaseSums(db: Db | Tx, where: SQL): Promise<ImportPeriod[]> {
  const { rows } = await db.execute<SumRow>(sql`
    select to_char(p.start at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as start, c.billing_currency as currency, count(*)::int as rows,
      sum(c.billed_cost)::text as billed, sum(c.effective_cost)::text as effective
    from billing_period p join charge c on c.load_id = p.load_id and c.billing_period_start = p.start
    where ${where} group by p.start, c.billing_currency order by p.start, c.billing_currency`)
  return rows.map(row => ({ billingPeriodStart: row.start, currency: row.currency, rows: row.rows, billedCost: scaledText(scaled(row.billed)), effectiveCost: scaledText(scaled(row.effective)) }))
}

/** Adds sums of several files up per billing period and currency. */
export function mergeSums(lists: ImportPeriod[][]): ImportPeriod[] {
  const merged = new Map<string, ImportPeriod>()
  for (const period of lists.flat()) {
    const key = `${period.billingPeriodStart} ${period.currency}`
    const known = merged.get(key)
    merged.set(key, known
      ? { ...known, rows: known.rows + period.rows, billedCost: scaledText(scaled(known.billedCost) + scaled(period.billedCost)), effectiveCost: scaledText(scaled(known.effectiveCost) + scaled(period.effectiveCost)) }
      : period)
  }
  return [...merged].sort(([a], [b]) => a < b ? -1 : 1).map(([, period]) => period)
}

/** What replacing `before` by `after` changes in billed money. A currency that is no longer there counts as zero afterwards. */
export function changesBetween(before: ImportPeriod[], after: ImportPeriod[]): ImportChange[] {
  const key = (period: ImportPeriod) => `${period.billingPeriodStart} ${period.currency}`
  const old = new Map(before.map(period => [key(period), period]))
  const now = new Map(after.map(period => [key(period), period]))
  return [...new Set([...old.keys(), ...now.keys()])].sort().map((id) => {
    const { billingPeriodStart, currency } = (now.get(id) ?? old.get(id))!
    const amount = now.get(id)?.billedCost ?? '0'
    const previous = old.get(id)?.billedCost
    return { billingPeriodStart, currency, before: previous ?? null, after: amount, difference: scaledText(scaled(amount) - scaled(previous ?? '0')) }
  })
}
