import { sql } from 'drizzle-orm'
import type { SourceState } from '../../shared/contracts/imports'
import type { Db } from '../db/database'
import { listMapped } from './mappings'
import type { CubeFacts } from '../workers/cube'

type Row = { source: string; start: string; load_id: number; loaded_at: string }

/** Every source with its billing periods and the sums its last loads brought. */
export async function listSources(
  db: Db,
  { lastDayBySource, missingDays }: Pick<CubeFacts, 'lastDayBySource' | 'missingDays'>,
): Promise<SourceState[]> {
  const { rows } = await db.execute<Row & { periods: SourceState['periods'] }>(sql`
    select p.source, to_char(p.start at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as start, p.load_id, l.finished_at::text as loaded_at, l.periods
    from billing_period p join load l on l.id = p.load_id order by p.source, p.start`)
  const mapped = new Set(await listMapped(db))
  const sources = new Map<string, SourceState>()
  for (const row of rows) {
    const known = sources.get(row.source) ?? {
      source: row.source,
      lastDay: lastDayBySource[row.source] ?? null,
      lastLoadedAt: row.loaded_at,
      periods: [],
      missingDays: missingDays[row.source] ?? [],
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
