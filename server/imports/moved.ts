import { sql } from 'drizzle-orm'
import { scaled, scaledText } from '../../core/money/scaled'
import type { MovedLines } from '../../shared/contracts/imports'
import type { Db } from '../db/client'

const MOST_LINES = 500
type Row = { start: string, currency: string, sub_account: string | null, service: string | null, sku: string | null, resource: string | null, before: string, after: string }

/** Lines (sub account, service, SKU, resource) whose billed cost a load changed against the one it replaced, largest change first. */
export async function movedBy(db: Db, id: string): Promise<MovedLines> {
  const { rows } = await db.execute<Row>(sql`
    with sums as (
      select c.billing_period_start as start, c.billing_currency as currency, c.sub_account, c.sku, c.resource,
        coalesce(sum(c.billed_cost) filter (where c.load_id = p.previous_load_id), 0) as before, coalesce(sum(c.billed_cost) filter (where c.load_id = p.load_id), 0) as after
      from billing_period p join charge c on c.billing_period_start = p.start and c.load_id in (p.load_id, p.previous_load_id)
      where p.load_id = ${Number(id)} and p.previous_load_id is not null
      group by 1, 2, 3, 4, 5 having coalesce(sum(c.billed_cost) filter (where c.load_id = p.previous_load_id), 0) <> coalesce(sum(c.billed_cost) filter (where c.load_id = p.load_id), 0))
    select to_char(s.start at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as start, s.currency, a.sub_account_name as sub_account, k.service_name as service, coalesce(k.sku_meter, k.sku_id) as sku, coalesce(r.resource_name, r.resource_id) as resource, s.before::text, s.after::text
    from sums s join focus_sub_account a on a.id = s.sub_account join focus_sku k on k.id = s.sku join focus_resource r on r.id = s.resource
    order by abs(s.after - s.before) desc, s.start, resource, sku`)
  return {
    lines: rows.slice(0, MOST_LINES).map(row => ({
      billingPeriodStart: row.start, currency: row.currency, subAccount: row.sub_account, service: row.service, sku: row.sku, resource: row.resource,
      before: scaledText(scaled(row.before)), after: scaledText(scaled(row.after)), difference: scaledText(scaled(row.after) - scaled(row.before)),
    })),
    rest: Math.max(0, rows.length - MOST_LINES),
  }
}
