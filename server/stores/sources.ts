import { sql } from 'drizzle-orm'
import { daysIn } from '../../core/time/day-runs'
import type { SourceState } from '../../shared/contracts/imports'
import type { Db } from '../db/database'
import { listMapped } from './mappings'
import type { SourceDays } from '../../core/spend/freshness'

/** So many runs of days without charges are told of a source; their number is told whole. */
const MOST_RUNS = 12

type Row = { source: string; start: string; load_id: number; loaded_at: string }

/** Every source with its billing periods and the sums its last loads brought. */
export async function listSources(db: Db, { sources: days }: { sources: SourceDays[] }): Promise<SourceState[]> {
  const daysOf = new Map(days.map(source => [source.source, source]))
  const { rows } = await db.execute<Row & { periods: SourceState['periods'] }>(sql`
    select p.source, to_char(p.start at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as start, p.load_id, l.finished_at::text as loaded_at, l.periods
    from billing_period p join load l on l.id = p.load_id order by p.source, p.start`)
  const mapped = new Set(await listMapped(db))
  const sources = new Map<string, SourceState>()
  for (const row of rows) {
    const known = sources.get(row.source) ?? {
      source: row.source,
      lastDay: daysOf.get(row.source)?.lastDay ?? null,
      partialDay: daysOf.get(row.source)?.partialDay ?? null,
      laterFrom: daysOf.get(row.source)?.laterFrom ?? null,
      deliveredAt: daysOf.get(row.source)?.deliveredAt ?? null,
      lastLoadedAt: row.loaded_at,
      periods: [],
      missingDays: (daysOf.get(row.source)?.missing ?? []).slice(0, MOST_RUNS),
      missingCount: daysIn(daysOf.get(row.source)?.missing ?? []),
      mapped: mapped.has(row.source),
    }
    if (row.loaded_at > known.lastLoadedAt) known.lastLoadedAt = row.loaded_at
    for (const period of row.periods) {
      if (period.billingPeriodStart === row.start) known.periods.push({ ...period, loadId: String(row.load_id), loadedAt: row.loaded_at })
    }
    sources.set(row.source, known)
  }
  return [...sources.values()]
}
