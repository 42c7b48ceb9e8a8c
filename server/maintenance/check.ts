import { dictionaryNames, type DictionaryName } from '../../core/focus/star'
import { allocationPlanSchema } from '../../core/allocation/plan'
import { keptDocument } from '../../core/estimate/documents/kept-document'
import { estimateSchema } from '../../core/estimate/estimate'
import { patternSchema } from '../../core/estimate/pattern'
import { scaledText } from '../../core/money/scaled'
import { earlierCard, rateCardSchema } from '../../core/ratecard/rate-card'
import type { Segment } from '../../core/spend/segment'
import { segmentSums } from '../../core/spend/segment-sums'
import { upliftSetSchema } from '../../core/uplift/uplift-set'
import type { ImportPeriod } from '../../shared/contracts/imports'
import type { Checked } from '../../shared/contracts/maintenance'
import { measureKept } from '../../shared/contracts/measures'
import { lookup, referenceBody, savedSentenceBody } from '../../shared/contracts/spend-settings'
import { ChargeStore } from '../charges/charge-store'
import type { Entry } from '../charges/entry-sql'
import { digestOf } from '../charges/entry-ids'
import { decodeSegment } from '../charges/segment-codec'
import { currencyList } from '../charges/stored-segments'
import type { Database } from '../db/database'
import { jobKinds } from '../jobs/kinds'

const ENTRIES_AT_ONCE = 20_000

/** Reads everything that is kept and names what is damaged. Changes nothing. */
export async function checkAll(database: Database): Promise<Checked> {
  const found: Checked = { read: [], damaged: [] }
  const charges = new ChargeStore(database)
  const known = await checkEntries(charges, found)
  await checkSegments(database, charges, known, found)
  await checkBodies(database, found)
  return found
}

/** Entries are what their hash says. @returns the ids of each dictionary. */
async function checkEntries(charges: ChargeStore, { read, damaged }: Checked): Promise<Map<DictionaryName, Set<number>>> {
  const known = new Map<DictionaryName, Set<number>>()
  for (const name of dictionaryNames) {
    const ids = new Set<number>()
    const digests = new Map(JSON.parse(await charges.entries.knownText(name)) as [number, string][])
    for (let last = 0; ;) {
      const after = await charges.entries.after(name, last, ENTRIES_AT_ONCE)
      for (const [id, ...values] of JSON.parse(after.text) as Entry[]) {
        ids.add(id)
        last = id
        if (digests.get(id) !== digestOf(values))
          damaged.push({
            what: `entry ${id} of ${name}`,
            mend: 'Restore the newest backup, or load the billing periods that name it again.',
          })
      }
      if (after.count < ENTRIES_AT_ONCE) break
    }
    known.set(name, ids)
    read.push({ what: `entries of ${name}`, count: ids.size })
  }
  return known
}

type Kept = { loadId: number; start: string; source: string | null; counts: boolean; sums: ImportPeriod[] }

/** Segments are whole, follow each other without a gap, name entries that are there, and add up to what the load has noted. */
async function checkSegments(
  database: Database,
  charges: ChargeStore,
  known: Map<DictionaryName, Set<number>>,
  { read, damaged }: Checked,
): Promise<void> {
  const start = (column: string) => `to_char(${column} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"')`
  const rows = (await database.query(`
    select coalesce(s.load_id, p.load_id), coalesce(s.start, p.start), l.source, p.load_id is not null, coalesce(l.periods, '[]'::jsonb)
    from (select distinct load_id, ${start('billing_period_start')} as start from charge_segment) s
    full join (select load_id, ${start('start')} as start from billing_period) p on p.load_id = s.load_id and p.start = s.start
    left join load l on l.id = coalesce(s.load_id, p.load_id) order by 1, 2`)) as [number, string, string | null, boolean, ImportPeriod[]][]
  let segments = 0
  let total = 0
  for (const [loadId, period, source, counts, sums] of rows) {
    const kept: Kept = { loadId, start: period, source, counts, sums: sums.filter(sum => sum.billingPeriodStart === period) }
    const { wrong, count, charges: read } = await checkPeriod(charges, kept, known)
    segments += count
    total += read
    for (const what of wrong)
      damaged.push({
        what: `${what} (${source ?? `load ${loadId}`}, ${period.slice(0, 7)}${counts ? '' : ', replaced'})`,
        mend: counts ? "Load the period's files again." : 'It only matters where a later load is undone.',
      })
  }
  read.push({ what: 'segments', count: segments }, { what: 'charges', count: total })
}

async function checkPeriod(charges: ChargeStore, { loadId, start, source, sums }: Kept, known: Map<DictionaryName, Set<number>>) {
  const wrong: string[] = []
  if (source === null) wrong.push('charges of a load that is not there')
  const { currencies, code } = currencyList()
  const whole: Segment[] = []
  let count = 0
  for (const bytes of await charges.segments(loadId, start)) {
    const segment = decodeSegment(bytes, code)
    if (segment) whole.push(segment)
    else wrong.push(`segment ${count}`)
    count++
  }
  for (const [name, ids] of known)
    if (whole.some(({ keys }) => keys[name].ids.some(id => !ids.has(id)))) wrong.push(`charges whose ${name} is not there`)
  if (!wrong.length) {
    const text = (list: readonly { currency: string; rows: number; billedCost: string; effectiveCost: string }[]) =>
      JSON.stringify([...list].map(({ currency, rows, billedCost, effectiveCost }) => [currency, rows, billedCost, effectiveCost]).sort())
    const own = segmentSums(whole, currencies).map(({ currency, rows, billed, effective }) => ({
      currency,
      rows,
      billedCost: scaledText(billed),
      effectiveCost: scaledText(effective),
    }))
    if (text(own) !== text(sums)) wrong.push('charges that do not add up to what was loaded')
  }
  return { wrong, count, charges: whole.reduce((rows, segment) => rows + segment.rows, 0) }
}

type Readable = { what: string; sql: string; reads: (body: unknown) => boolean; mend: string }
const bodies: readonly Readable[] = [
  {
    what: 'estimate',
    sql: `select estimate_id || ', version ' || version, body from estimate_version`,
    reads: body => estimateSchema.safeParse(body).success,
    mend: 'Open another version of it.',
  },
  { what: 'link', sql: 'select id, body from estimate_link', reads: body => keptDocument(body) !== null, mend: 'Make the link anew.' },
  {
    what: 'rate card',
    sql: `select provider || ', ' || valid_from || ', revision ' || revision, body from rate_card`,
    reads: body => rateCardSchema.safeParse(earlierCard(body)).success,
    mend: 'Drop its file again.',
  },
  {
    what: 'allocation plan',
    sql: `select 'version ' || version, body from allocation_version`,
    reads: body => allocationPlanSchema.safeParse(body).success,
    mend: 'Save the plan again.',
  },
  {
    what: 'lookup',
    sql: `select name || ', version ' || version, body from lookup_version where body is not null`,
    reads: body => lookup.safeParse(body).success,
    mend: 'Save it again.',
  },
  {
    what: 'business measure',
    sql: `select name, json_build_object('unit', unit, 'grain', grain, 'tree', tree, 'values', (
        select coalesce(json_agg(json_build_object('centre', centre, 'date', date, 'value', trim_scale(value)::text)), '[]'::json)
        from measure_value where measure = name)) from business_measure`,
    reads: body => measureKept.safeParse(body).success,
    mend: 'Take it away and load it anew.',
  },
  { what: 'uplift', sql: 'select id, body from uplift_set', reads: body => upliftSetSchema.safeParse(body).success, mend: 'Make it anew.' },
  { what: 'pattern', sql: 'select id, body from pattern', reads: body => patternSchema.safeParse(body).success, mend: 'Make it anew.' },
  {
    what: 'saved sentence',
    sql: 'select name, body from saved_sentence',
    reads: body => savedSentenceBody.safeParse(body).success,
    mend: 'Save it again.',
  },
  {
    what: 'spend reference',
    sql: 'select id::text, body from spend_reference',
    reads: body => referenceBody.safeParse(body).success,
    mend: 'Restore the newest backup.',
  },
  {
    what: 'job',
    sql: `select name, json_build_object('kind', kind, 'argument', argument) from job`,
    reads(body) {
      const { kind, argument } = body as { kind: string; argument: unknown }
      return jobKinds.find(known => known.kind === kind)?.argument.safeParse(argument).success ?? false
    },
    mend: 'Delete what it belongs to and create it again.',
  },
]

/** Everything that people have made can be read by what it may hold. */
async function checkBodies(database: Database, { read, damaged }: Checked): Promise<void> {
  for (const { what, sql, reads, mend } of bodies) {
    const rows = (await database.query(sql)) as [string, unknown][]
    read.push({ what: `${what}s`, count: rows.length })
    for (const [name, body] of rows) if (!reads(body)) damaged.push({ what: `${what} ${name}`, mend })
  }
}
