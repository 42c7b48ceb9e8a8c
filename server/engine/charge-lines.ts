import { focusColumn } from '../../core/focus/columns'
import { amountColumns, dictionaries, dictionaryFor, dictionaryNames, quantityColumns, type DictionaryName } from '../../core/focus/star'
import type { Scope } from '../../core/spend/question'
import { columnName, tableName } from '../db/schema/dictionary'
import type { Services } from '../services'

const timeColumns = ['BillingPeriodStart', 'ChargePeriodStart', 'ChargePeriodEnd'] as const
const numbers: readonly string[] = [...amountColumns, ...quantityColumns]

/** Columns that charge lines can be taken with: FOCUS columns that are kept, and providers' own. */
export const lineColumns: readonly string[] = [...timeColumns, 'BillingPeriodEnd', 'BillingCurrency', ...dictionaryNames.filter(name => name !== 'others').flatMap(name => [...dictionaries[name]]), ...numbers]

export const isLineColumn = (name: string) => lineColumns.includes(name) || /^x_\w+$/.test(name) || focusColumn(name) !== undefined
export const lineKind = (name: string) => numbers.includes(name) ? 'amount' as const : 'text' as const

/** The charges of a scope, billing period by billing period, as texts of the chosen columns; amounts with every digit. */
export async function* chargeLines({ database, cube }: Pick<Services, 'database' | 'cube'>, scope: Scope, columns: readonly string[]): AsyncGenerator<(string | null)[][]> {
  const { result: narrowed } = await cube.ask('narrowed', scope)
  const params: string[] = []
  const among = (dictionary: DictionaryName, ids: number[]) => `c."${columnName(dictionary)}" = any($${params.push(`{${ids.join()}}`)}::int[])`
  const where = [
    ...narrowed.ids.map(({ dictionary, allowed }) => among(dictionary, allowed)),
    ...narrowed.layered.map(({ layers, none }) => {
      // the first layer that has a value decides
      const ways = layers.map((layer, i) => [...layers.slice(0, i).map(before => among(before.dictionary, before.without)), among(layer.dictionary, layer.allowed)].join(' and '))
      if (none) ways.push(layers.map(layer => among(layer.dictionary, layer.without)).join(' and '))
      return `(${ways.map(way => `(${way})`).join(' or ')})`
    }),
  ]
  const used = new Set<DictionaryName>()
  const select = columns.map((name, i) => `${columnSql(name, used)} as "${i}"`)
  const joins = [...used].map(name => `join ${tableName(name)} "${name}" on "${name}".id = c."${columnName(name)}"`)
  const { rows: periods } = await database.client.query(`select load_id, start from billing_period ${scope.billingMonth ? `where to_char(start at time zone 'UTC', 'YYYY-MM') = '${scope.billingMonth}'` : ''} order by start, source`)
  for (const { load_id: loadId, start } of periods as unknown as { load_id: number, start: string }[]) {
    const { rows } = await database.client.query(
      `select ${select.join(', ')} from charge c join billing_period bp on bp.load_id = c.load_id and bp.start = c.billing_period_start ${joins.join(' ')}
       where c.load_id = ${Number(loadId)} and c.billing_period_start = '${new Date(start).toISOString()}' and c.charge_period_start >= '${scope.start}T00:00:00Z' and c.charge_period_start < '${scope.end}T00:00:00Z'
       ${where.length ? `and ${where.join(' and ')}` : ''} order by c.charge_period_start`, params, { rowMode: 'array' })
    if (rows.length) yield (rows as unknown as (string | null)[][])
  }
}

function columnSql(name: string, used: Set<DictionaryName>): string {
  const time = (column: string) => `to_char(${column} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"')`
  if (name === 'BillingPeriodEnd') return time('bp."end"')
  if ((timeColumns as readonly string[]).includes(name)) return time(`c."${columnName(name)}"`)
  if (name === 'BillingCurrency') return 'c.billing_currency'
  if (numbers.includes(name)) return `trim_scale(c."${columnName(name)}")::text`
  const dictionary = dictionaryFor(name)
  if (dictionary) {
    used.add(dictionary)
    return `"${dictionary}"."${columnName(name)}"`
  }
  used.add('others')
  return `("others".others::jsonb ->> '${name.replaceAll('\'', '\'\'')}')`
}
