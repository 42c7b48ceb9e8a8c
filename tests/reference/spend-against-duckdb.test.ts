// The spend engine against DuckDB (@duckdb/node-api), an independent engine, on random questions over a file of the demo: equal to the last
// digit.
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { DuckDBInstance, type DuckDBConnection } from '@duckdb/node-api'
import fc from 'fast-check'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { scaled, scaledText } from '../../core/money/scaled'
import { answer } from '../../core/spend/answer'
import { Cube } from '../../core/spend/cube'
import type { Question } from '../../core/spend/question'
import { runningTotals } from '../../core/spend/running'
import { spendTable } from '../../core/spend/table'
import { addDays } from '../../core/time/day'
import { demoDeliveries } from '../../demo/deliveries'
import { writeFocusFile } from '../../demo/focus-file'
import { decodeSegment } from '../../server/charges/segment-codec'
import { csvReader } from '../../server/imports/readers/csv'
import { SegmentBuilder } from '../../server/charges/segment-builder'
import { ChargeTarget } from '../../server/imports/targets'

const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-duck-'))
const files = ['brackwater-2026-10.csv.gz', 'larkfield-2026-10.csv.gz', 'lanternchart-2026-10.csv.gz']
const cube = new Cube()
let duck: DuckDBConnection

async function load(file: string) {
  const delivery = demoDeliveries().find(d => d.file === file)!
  await writeFocusFile(join(folder, file), delivery.charges())
  const builder = new SegmentBuilder()
  const target = new ChargeTarget({
    file,
    source: file,
    mapping: null,
    take: charge => builder.add(charge),
    note: problem => {
      throw new Error(JSON.stringify(problem))
    },
    entryId(name, values) {
      const id = cube.entries[name].length
      cube.addEntry(name, id, values)
      return id
    },
  })
  for await (const _ of csvReader.read(join(folder, file), target, {})) continue
  cube.setPeriod({
    source: file,
    billingPeriodStart: '2026-10-01T00:00:00Z',
    billingPeriodEnd: '2026-11-01T00:00:00Z',
    deliveredAt: '2026-12-01T00:00:00Z',
    segments: builder
      .finish()
      .map(full => decodeSegment(builder.encode(full, (_, key) => key).bytes, currency => cube.currencyCode(currency))!),
  })
}

beforeAll(async () => {
  for (const file of files) await load(file)
  duck = await (await DuckDBInstance.create()).connect()
  await duck.run(`create table charges as select * replace (BilledCost::decimal(38,15) as BilledCost, EffectiveCost::decimal(38,15) as EffectiveCost, ListCost::decimal(38,15) as ListCost, ContractedCost::decimal(38,15) as ContractedCost, PricingQuantity::decimal(38,15) as PricingQuantity)
    from read_csv([${files.map(f => `'${join(folder, f)}'`).join(', ')}], all_varchar = true, union_by_name = true, nullstr = '')`)
})
afterAll(() => rmSync(folder, { recursive: true }))

const columns = [
  'ProviderName',
  'SubAccountName',
  'ServiceName',
  'RegionId',
  'SkuMeter',
  'SkuId',
  'ResourceId',
  'ChargeCategory',
  'Tags/team',
  'Tags/environment',
  'CommitmentDiscountStatus',
  'x_ProjectCode',
  'SkuPriceDetails/InstanceType',
  'SkuPriceDetails/InstanceSeries',
]
const values = [
  'Brackwater Cloud',
  'live-passenger',
  'rehearsal',
  'Servers',
  'Log search',
  'low-coast',
  'booking',
  'bookings',
  'live',
  'Usage',
  'Credit',
  'SK-BOO',
  'otter',
  'otter-4x16',
  'nowhere',
  null,
]
const column = fc.constantFrom(...columns)
const narrowing = fc.dictionary(column, fc.uniqueArray(fc.constantFrom(...values), { minLength: 1, maxLength: 3 }), { maxKeys: 2 })
const question: fc.Arbitrary<Question> = fc
  .record({
    measure: fc.constantFrom(
      'billedCost' as const,
      'effectiveCost' as const,
      'listCost' as const,
      'contractedCost' as const,
      'pricingQuantity' as const,
      'savedAgainstList' as const,
    ),
    splitBy: fc.uniqueArray(column, { maxLength: 4 }),
    grain: fc.constantFrom('hour' as const, 'day' as const, 'week' as const, 'month' as const, 'quarter' as const, null),
    conditions: fc.array(
      fc.oneof(
        fc.record({ dimension: column, keep: fc.boolean(), contains: fc.constantFrom('live', 'RESER', 'o') }),
        fc.record({ dimension: column, keep: fc.boolean(), above: fc.constantFrom('10', '250.5') }),
      ),
      { maxLength: 1 },
    ),
    start: fc.constantFrom('2026-09-01', '2026-10-01', '2026-10-13'),
    days: fc.integer({ min: 1, max: 62 }),
    keep: narrowing,
    leaveOut: narrowing,
  })
  .map(({ start, days, ...q }) => ({ ...q, start, end: addDays(start, days) }))

const sqlColumn = (name: string) =>
  name.startsWith('SkuPriceDetails/')
    ? `json_extract_string(SkuPriceDetails, '$.${name.slice(16)}')`
    : name.startsWith('Tags/')
      ? `json_extract_string(Tags, '$.${name.slice(5)}')`
      : `"${name}"`
const text = (value: string) => `'${value.replaceAll("'", "''")}'`
function condition(dimension: string, list: (string | null)[]): string {
  const named = list.filter((v): v is string => v !== null)
  const parts = [
    ...(named.length ? [`coalesce(${sqlColumn(dimension)} in (${named.map(text).join(', ')}), false)`] : []),
    ...(list.includes(null) ? [`${sqlColumn(dimension)} is null`] : []),
  ]
  return `(${parts.join(' or ')})`
}

const sums: Record<string, string> = {
  billedCost: 'BilledCost',
  effectiveCost: 'EffectiveCost',
  listCost: 'ListCost',
  contractedCost: 'ContractedCost',
  pricingQuantity: 'coalesce(PricingQuantity, 0)',
  savedAgainstList: 'ListCost - EffectiveCost',
}
const starts: Record<string, string> = {
  hour: 'substr(ChargePeriodStart, 1, 13)',
  day: 'substr(ChargePeriodStart, 1, 10)',
  week: `strftime(date_trunc('week', ChargePeriodStart[1:10]::date), '%Y-%m-%d')`,
  month: `substr(ChargePeriodStart, 1, 7) || '-01'`,
  quarter: `strftime(date_trunc('quarter', ChargePeriodStart[1:10]::date), '%Y-%m-%d')`,
}

function whereOf({ start, end, keep, leaveOut }: Question): string[] {
  return [
    `ChargePeriodStart >= '${start}'`,
    `ChargePeriodStart < '${end}'`,
    ...Object.entries(keep).map(([d, v]) => condition(d, v)),
    ...Object.entries(leaveOut).map(([d, v]) => `not ${condition(d, v)}`),
  ]
}

/** Values whose text contains something; or whose billed cost under the plain conditions is above an amount, in any one currency. */
function further(q: Question): string[] {
  return (q.conditions ?? []).map(c => {
    const holds =
      'contains' in c
        ? `coalesce(contains(lower(${sqlColumn(c.dimension)}), lower(${text(c.contains)})), false)`
        : `exists (select 1 from (select ${sqlColumn(c.dimension)} as v from charges where ${whereOf(q).join(' and ')} group by v, BillingCurrency having sum(BilledCost) > ${c.above}) above where above.v is not distinct from ${sqlColumn(c.dimension)})`
    return c.keep ? holds : `not ${holds}`
  })
}

async function ask(q: Question): Promise<Map<string, string>> {
  const { measure, splitBy, grain } = q
  const split = [
    grain ? starts[grain]! : 'null',
    measure === 'pricingQuantity' ? `coalesce(PricingUnit, 'no unit')` : 'BillingCurrency',
    ...splitBy.map(sqlColumn),
  ]
  const reader = await duck.runAndReadAll(
    `select ${split.map((s, i) => `${s} as k${i}`).join(', ')}, sum(${sums[measure]})::varchar as amount from charges where ${[...whereOf(q), ...further(q)].join(' and ')} group by ${split.map((_, i) => i + 1).join(', ')}`,
  )
  return new Map(reader.getRowsJson().map(row => [JSON.stringify(row.slice(0, -1)), scaledText(scaled(String(row.at(-1))))]))
}

it('gives what DuckDB gives', async () => {
  let groups = 0
  await fc.assert(
    fc.asyncProperty(question, async q => {
      const { rows, totals } = answer(cube, q)
      const mine = new Map(rows.map(row => [JSON.stringify([row.start, row.currency, ...q.splitBy.map(d => row.values[d])]), row.amount]))
      expect(mine).toEqual(await ask(q))
      const whole = await ask({ ...q, splitBy: [], grain: null })
      expect(new Map(totals.map(t => [JSON.stringify([null, t.currency]), t.amount]))).toEqual(whole)
      groups += rows.length
    }),
    { numRuns: 120 },
  )
  expect(groups).toBeGreaterThan(1000)
})

it('unit prices in a table are DuckDB’s quotients, in every row, column and total', async () => {
  await fc.assert(
    fc.asyncProperty(question, fc.constantFrom('start' as const, 'ServiceName' as const), async (plain, across) => {
      const q: Question = {
        ...plain,
        measure: 'unitPrice',
        grain: across === 'start' ? 'month' : null,
        splitBy: plain.splitBy.filter(d => d !== across).slice(0, 2),
      }
      const now = answer(cube, across === 'start' ? q : { ...q, splitBy: [...q.splitBy, across] })
      for (const currency of now.totals.map(total => total.currency).slice(0, 3)) {
        const table = spendTable(now, null, {
          measure: 'unitPrice',
          splitBy: q.splitBy,
          companions: {},
          across,
          currency,
          columns: [],
          days: 1,
        })
        const acrossSql = across === 'start' ? starts.month! : sqlColumn(across)
        const [money, unit] = currency.split(' per ') as [string, string]
        const where = [...whereOf(q), ...further(q), `BillingCurrency = ${text(money)}`, `coalesce(PricingUnit, 'no unit') = ${text(unit)}`]
        const names = q.splitBy.map((d, i) => `${sqlColumn(d)} as k${i}`)
        const reader = await duck.runAndReadAll(
          `select ${[...names, `${acrossSql} as a`].join(', ')}, ${[...q.splitBy.map((_, i) => `grouping(k${i})`), 'grouping(a)'].join(' + ')} as level, grouping(a) as whole, sum(EffectiveCost)::double / nullif(sum(coalesce(PricingQuantity, 0)), 0)::double as price from (select *, ${[...names, `${acrossSql} as a`].join(', ')} from charges where ${where.join(' and ')}) group by cube(${[...q.splitBy.map((_, i) => `k${i}`), 'a'].join(', ')})`.replace(
            /^select .*? as level/,
            `select ${[...q.splitBy.map((_, i) => `k${i}`), 'a'].join(', ')}, ${q.splitBy.map((_, i) => `grouping(k${i})`).join(' + ') || '0'} as level`,
          ),
        )
        const width = q.splitBy.length
        for (const row of reader.getRowsJson()) {
          const [level, isWhole, price] = [Number(row[width + 1]), Number(row[width + 2]), row[width + 3]]
          if (level !== 0 && level !== width) continue
          const own =
            width > 0 && level === width
              ? table.total
              : table.rows.find(({ values }) => JSON.stringify(values) === JSON.stringify(row.slice(0, width)))
          const place = table.heads.findIndex(head => (isWhole ? head.column === 'amount' : head.value === row[width]))
          if (price === null || !own || place < 0) continue
          expect(Math.abs(Number(own.cells[place]) - Number(price))).toBeLessThan(1e-9 * (1 + Math.abs(Number(price))))
        }
      }
    }),
    { numRuns: 40 },
  )
})

it('running totals, spellings that count as one, what SKUs are charged for and managed services whole are DuckDB’s', async () => {
  const rows = async (sql: string) => (await duck.runAndReadAll(sql)).getRowsJson()
  const by = (dimension: string) => {
    const all = { start: '2026-10-01', end: '2026-11-01', keep: {}, leaveOut: {} }
    const { rows } = answer(cube, { measure: 'billedCost', splitBy: [dimension], grain: null, ...all })
    return new Map(rows.map(row => [JSON.stringify([row.values[dimension], row.currency]), row.amount]))
  }
  const theirs = async (value: string) =>
    new Map(
      (
        await rows(
          `select ${value} as v, BillingCurrency, sum(BilledCost)::varchar from charges where ChargePeriodStart >= '2026-10-01' and ChargePeriodStart < '2026-11-01' group by 1, 2`,
        )
      ).map(([v, currency, amount]) => [JSON.stringify([v, currency]), scaledText(scaled(String(amount)))]),
    )
  const daily = answer(cube, {
    measure: 'billedCost',
    splitBy: [],
    grain: 'day',
    start: '2026-10-01',
    end: '2026-11-01',
    keep: {},
    leaveOut: {},
  })
  for (const currency of ['EUR', 'USD', 'NOK']) {
    const mine = runningTotals(daily.rows.filter(row => row.currency === currency).map(row => row.amount))
    const running = await rows(
      `select sum(sum(BilledCost)) over (order by ${starts.day})::varchar from charges where ChargePeriodStart >= '2026-10-01' and ChargePeriodStart < '2026-11-01' and BillingCurrency = '${currency}' group by ${starts.day} order by ${starts.day}`,
    )
    expect(mine).toEqual(running.map(([amount]) => scaledText(scaled(String(amount)))))
    expect(mine.length).toBeGreaterThan(0)
  }
  const skus = (await rows('select distinct SkuId from charges where SkuId is not null order by 1')).map(([sku]) => String(sku))
  const charged = Object.fromEntries(skus.flatMap((sku, i) => (i % 3 === 2 ? [] : [[sku, i % 3 ? 'use' : 'existing']]))) as Record<
    string,
    'existing' | 'use'
  >
  cube.setReference({
    aliases: { 'Tags/team': { bookings: 'booking', 'crew-roster': 'booking' } },
    accounts: {},
    containerTags: {},
    charged,
    lookups: {},
  })
  const team = sqlColumn('Tags/team')
  expect(by('Tags/team')).toEqual(await theirs(`case when ${team} in ('bookings', 'crew-roster') then 'booking' else ${team} end`))
  const list = (kind: string) =>
    Object.entries(charged)
      .filter(([, of]) => of === kind)
      .map(([sku]) => text(sku))
      .join(', ')
  expect(by('ChargedFor')).toEqual(
    await theirs(`case when SkuId in (${list('use')}) then 'use' when SkuId in (${list('existing')}) then 'existing' end`),
  )
  // a service whole: what a resource made is charged with the service under which its maker was charged first
  const makers = `(select ResourceId as maker, arg_min(ServiceName, rowid) as service from charges where ResourceId is not null group by 1)`
  const service = (maker: string) => `(select service from ${makers} m where m.maker = ${maker})`
  expect(by('ServiceWhole')).toEqual(
    await theirs(`coalesce(${service('x_CreatedBy')}, ${service(`json_extract_string(Tags, '$."created-by"')`)}, ServiceName)`),
  )
})
