// The spend engine against DuckDB (@duckdb/node-api), an independent engine, on random questions over a file of the demo: equal to the last digit.
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { DuckDBInstance, type DuckDBConnection } from '@duckdb/node-api'
import fc from 'fast-check'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { rowCheck } from '../../core/focus/check'
import { dictionaryNames } from '../../core/focus/star'
import { scaled, scaledText } from '../../core/money/scaled'
import { answer } from '../../core/spend/answer'
import { Cube, measureNames, type Chunk } from '../../core/spend/cube'
import { highLimb, lowLimb } from '../../core/spend/limbs'
import type { Question } from '../../core/spend/question'
import { addDays } from '../../core/time/day'
import { demoDeliveries } from '../../demo/deliveries'
import { writeFocusFile } from '../../demo/focus-file'
import { readCsv } from '../../server/imports/readers/csv'

const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-duck-'))
const files = ['brackwater-2026-10.csv.gz', 'larkfield-2026-10.csv.gz', 'lanternchart-2026-10.csv.gz']
const cube = new Cube()
let duck: DuckDBConnection

async function load(file: string) {
  const delivery = demoDeliveries().find(d => d.file === file)!
  await writeFocusFile(join(folder, file), delivery.charges())
  const ids = new Map<string, number>()
  const rows: { hour: number, currency: number, keys: number[], amounts: bigint[] }[] = []
  let check: ReturnType<typeof rowCheck> | null = null
  for await (const { records } of readCsv(join(folder, file))) {
    for (const cells of records) {
      if (!check) {
        check = rowCheck(cells)
        continue
      }
      const checked = check(cells, rows.length + 1)
      if ('problems' in checked) throw new Error(JSON.stringify(checked.problems[0]))
      const { charge } = checked
      const keys = dictionaryNames.map((name) => {
        const key = `${name} ${charge.entries[name].join('\u0001')}`
        let id = ids.get(key)
        if (id === undefined) {
          id = cube.entries[name].length
          ids.set(key, id)
          cube.addEntry(name, id, charge.entries[name])
        }
        return id
      })
      rows.push({ hour: Date.parse(charge.chargePeriodStart) / 3_600_000, currency: cube.currencyCode(charge.billingCurrency), keys, amounts: [charge.amounts.BilledCost, charge.amounts.EffectiveCost, charge.amounts.ListCost, charge.quantities.PricingQuantity ?? 0n] })
    }
  }
  const chunk: Chunk = {
    source: file, billingPeriodStart: '2026-10-01T00:00:00Z', rows: rows.length, startHour: Int32Array.from(rows, r => r.hour), currency: Uint8Array.from(rows, r => r.currency),
    keys: Object.fromEntries(dictionaryNames.map((name, i) => [name, Int32Array.from(rows, r => r.keys[i]!)])) as Chunk['keys'],
    measures: Object.fromEntries(measureNames.map((name, i) => [name, { high: Float64Array.from(rows, r => highLimb(r.amounts[i]!)), low: Float64Array.from(rows, r => lowLimb(r.amounts[i]!)) }])) as Chunk['measures'],
  }
  cube.setChunk(chunk)
}

beforeAll(async () => {
  for (const file of files) await load(file)
  duck = await (await DuckDBInstance.create()).connect()
  await duck.run(`create table charges as select * replace (BilledCost::decimal(38,15) as BilledCost, EffectiveCost::decimal(38,15) as EffectiveCost)
    from read_csv([${files.map(f => `'${join(folder, f)}'`).join(', ')}], all_varchar = true, union_by_name = true, nullstr = '')`)
})
afterAll(() => rmSync(folder, { recursive: true }))

const columns = ['ProviderName', 'SubAccountName', 'ServiceName', 'RegionId', 'SkuMeter', 'SkuId', 'ResourceId', 'ChargeCategory', 'Tags/team', 'Tags/environment', 'CommitmentDiscountStatus']
const values = ['Brackwater Cloud', 'live-passenger', 'rehearsal', 'Servers', 'Log search', 'low-coast', 'booking', 'bookings', 'live', 'Usage', 'Credit', 'nowhere', null]
const column = fc.constantFrom(...columns)
const narrowing = fc.dictionary(column, fc.uniqueArray(fc.constantFrom(...values), { minLength: 1, maxLength: 3 }), { maxKeys: 2 })
const question: fc.Arbitrary<Question> = fc.record({
  measure: fc.constantFrom('billedCost' as const, 'effectiveCost' as const), splitBy: fc.uniqueArray(column, { maxLength: 3 }), grain: fc.constantFrom('day' as const, 'month' as const, null),
  start: fc.constantFrom('2026-09-01', '2026-10-01', '2026-10-13'), days: fc.integer({ min: 1, max: 62 }), keep: narrowing, leaveOut: narrowing,
}).map(({ start, days, ...q }) => ({ ...q, start, end: addDays(start, days) }))

const sqlColumn = (name: string) => name.startsWith('Tags/') ? `json_extract_string(Tags, '$.${name.slice(5)}')` : `"${name}"`
const text = (value: string) => `'${value.replaceAll('\'', '\'\'')}'`
function condition(dimension: string, list: (string | null)[]): string {
  const named = list.filter((v): v is string => v !== null)
  const parts = [...(named.length ? [`coalesce(${sqlColumn(dimension)} in (${named.map(text).join(', ')}), false)`] : []), ...(list.includes(null) ? [`${sqlColumn(dimension)} is null`] : [])]
  return `(${parts.join(' or ')})`
}

async function ask({ measure, splitBy, grain, start, end, keep, leaveOut }: Question): Promise<Map<string, string>> {
  const split = [grain === 'day' ? 'substr(ChargePeriodStart, 1, 10)' : grain === 'month' ? `substr(ChargePeriodStart, 1, 7) || '-01'` : 'null', 'BillingCurrency', ...splitBy.map(sqlColumn)]
  const where = [`ChargePeriodStart >= '${start}'`, `ChargePeriodStart < '${end}'`, ...Object.entries(keep).map(([d, v]) => condition(d, v)), ...Object.entries(leaveOut).map(([d, v]) => `not ${condition(d, v)}`)]
  const reader = await duck.runAndReadAll(`select ${split.map((s, i) => `${s} as k${i}`).join(', ')}, sum(${measure === 'billedCost' ? 'BilledCost' : 'EffectiveCost'})::varchar as amount from charges where ${where.join(' and ')} group by ${split.map((_, i) => i + 1).join(', ')}`)
  return new Map(reader.getRowsJson().map(row => [JSON.stringify(row.slice(0, -1)), scaledText(scaled(String(row.at(-1))))]))
}

it('gives what DuckDB gives', async () => {
  let groups = 0
  await fc.assert(fc.asyncProperty(question, async (q) => {
    const { rows, totals } = answer(cube, q)
    const mine = new Map(rows.map(row => [JSON.stringify([row.start, row.currency, ...q.splitBy.map(d => row.values[d])]), row.amount]))
    expect(mine).toEqual(await ask(q))
    const whole = await ask({ ...q, splitBy: [], grain: null })
    expect(new Map(totals.map(t => [JSON.stringify([null, t.currency]), t.amount]))).toEqual(whole)
    groups += rows.length
  }), { numRuns: 120 })
  expect(groups).toBeGreaterThan(1000)
})
