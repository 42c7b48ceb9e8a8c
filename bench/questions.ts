import type { Question } from '../core/spend/question'

const base = { keep: {}, leaveOut: {} } as const
const from = 'charge c join billing_period p on p.load_id = c.load_id and p.start = c.billing_period_start'

/** Five questions as analysts ask them, each beside the same in SQL. */
export const questions: { name: string, question: Question, sql: string }[] = [
  {
    name: '13 months by month and service', question: { ...base, measure: 'effectiveCost', splitBy: ['ServiceName'], grain: 'month', start: '2025-11-01', end: '2026-12-01' },
    sql: `select date_trunc('month', c.charge_period_start at time zone 'UTC'), s.service_name, c.billing_currency, sum(c.effective_cost) from ${from} join focus_sku s on s.id = c.sku where c.charge_period_start >= '2025-11-01Z' and c.charge_period_start < '2026-12-01Z' group by 1, 2, 3`,
  },
  {
    name: '13 months, one service, by account and month', question: { ...base, measure: 'billedCost', splitBy: ['SubAccountName'], grain: 'month', start: '2025-11-01', end: '2026-12-01', keep: { ServiceName: ['Servers'] } },
    sql: `select date_trunc('month', c.charge_period_start at time zone 'UTC'), a.sub_account_name, c.billing_currency, sum(c.billed_cost) from ${from} join focus_sku s on s.id = c.sku join focus_sub_account a on a.id = c.sub_account where s.service_name = 'Servers' and c.charge_period_start >= '2025-11-01Z' and c.charge_period_start < '2026-12-01Z' group by 1, 2, 3`,
  },
  {
    name: '30 days by day and team', question: { ...base, measure: 'effectiveCost', splitBy: ['Tags/team'], grain: 'day', start: '2026-10-25', end: '2026-11-24' },
    sql: `select (c.charge_period_start at time zone 'UTC')::date, t.tags::jsonb ->> 'team', c.billing_currency, sum(c.effective_cost) from ${from} join focus_tag_set t on t.id = c.tag_set where c.charge_period_start >= '2026-10-25Z' and c.charge_period_start < '2026-11-24Z' group by 1, 2, 3`,
  },
  {
    name: 'a month, largest 50 resources', question: { ...base, measure: 'billedCost', splitBy: ['ResourceId'], grain: null, start: '2026-10-01', end: '2026-11-01', limit: 50 },
    sql: `select r.resource_id, c.billing_currency, sum(c.billed_cost) as amount from ${from} join focus_resource r on r.id = c.resource where c.charge_period_start >= '2026-10-01Z' and c.charge_period_start < '2026-11-01Z' group by 1, 2 order by amount desc limit 50`,
  },
  {
    name: 'a month by service and account', question: { ...base, measure: 'effectiveCost', splitBy: ['ServiceName', 'SubAccountName'], grain: null, start: '2026-10-01', end: '2026-11-01' },
    sql: `select s.service_name, a.sub_account_name, c.billing_currency, sum(c.effective_cost) from ${from} join focus_sku s on s.id = c.sku join focus_sub_account a on a.id = c.sub_account where c.charge_period_start >= '2026-10-01Z' and c.charge_period_start < '2026-11-01Z' group by 1, 2, 3`,
  },
]
