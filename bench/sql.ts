import { dictionaryFor, tagKey } from '../core/focus/star'
import { sumsFor } from '../core/spend/answer'
import type { Question } from '../core/spend/question'
import { columnName, tableName } from '../server/db/schema/dictionary'

/** How a database says the parts of a question. */
export type Dialect = {
  from: (dimensions: string[]) => string
  column: (dimension: string) => string
  amount: (measure: string) => string
  currency: string
  time: string
  start: (grain: NonNullable<Question['grain']>) => string
}

const text = (value: string) => `'${value.replaceAll("'", "''")}'`
const focusName = (measure: string) => measure[0]!.toUpperCase() + measure.slice(1)

/** The star schema of the embedded database. */
export const star: Dialect = {
  from: dimensions =>
    `charge c join billing_period p on p.load_id = c.load_id and p.start = c.billing_period_start ${[...new Set(dimensions.map(d => (tagKey(d) === null ? dictionaryFor(d)! : 'tagSet')))].map(d => `join ${tableName(d)} "${d}" on "${d}".id = c."${columnName(d)}"`).join(' ')}`,
  column: dimension =>
    tagKey(dimension) === null
      ? `"${dictionaryFor(dimension)}"."${columnName(dimension)}"`
      : `"tagSet".tags::jsonb ->> '${tagKey(dimension)}'`,
  amount: measure => `c."${columnName(focusName(measure))}"`,
  currency: 'c.billing_currency',
  time: 'c.charge_period_start',
  start: grain => `date_trunc('${grain}', c.charge_period_start at time zone 'UTC')`,
}

/** A flat table of FOCUS columns, tags as JSON. */
export const flat: Dialect = {
  from: () => 'charges',
  column: dimension => (tagKey(dimension) === null ? `"${dimension}"` : `json_extract_string(Tags, '$.${tagKey(dimension)}')`),
  amount: measure => `"${focusName(measure)}"`,
  currency: 'BillingCurrency',
  time: 'ChargePeriodStart',
  start: grain => `date_trunc('${grain}', ChargePeriodStart)`,
}

/** The same question in SQL. */
export function questionSql(q: Question, dialect: Dialect): string {
  const { from, column, amount, currency, time, start } = dialect
  const among = (dimension: string, values: (string | null)[]) => {
    const named = values.filter((v): v is string => v !== null)
    return `(${[...(named.length ? [`coalesce(${column(dimension)} in (${named.map(text).join(', ')}), false)`] : []), ...(values.includes(null) ? [`${column(dimension)} is null`] : [])].join(' or ')})`
  }
  const dimensions = [...q.splitBy, ...Object.keys(q.keep), ...Object.keys(q.leaveOut)]
  const split = [...(q.grain ? [start(q.grain)] : []), currency, ...q.splitBy.map(column)]
  const sums = sumsFor(q.measure).measures.map(amount)
  const where = [
    `${time} >= timestamp '${q.start} 00:00:00'`,
    `${time} < timestamp '${q.end} 00:00:00'`,
    ...Object.entries(q.keep).map(([d, v]) => among(d, v)),
    ...Object.entries(q.leaveOut).map(([d, v]) => `not ${among(d, v)}`),
  ]
  return `select ${split.join(', ')}, ${sums.map((s, i) => `sum(${s}) as amount${i}`).join(', ')} from ${from(dimensions)} where ${where.join(' and ')} group by ${split.map((_, i) => i + 1).join(', ')}${q.limit ? ` order by abs(sum(${sums[0]})) desc limit ${q.limit}` : ''}`
}
