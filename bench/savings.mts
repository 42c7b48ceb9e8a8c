// How long it takes to find what can be saved on a bill, and how long its longest slice is: `npm run bench:savings`. Two months of charges a
// day for 10, 30 and 100 thousand resources of all kinds that the detectors look at; one in fifty is one that they find. A tenth of them is
// measured by the hour for thirty days. And what a standing order asks first.
import { thresholdDetectors } from '../core/opportunity/detectors'
import { lookThroughBill } from '../core/opportunity/bill/look-through-bill'
import { HOURLY_DAYS, MeasuredTableBuilder, measuredIn } from '../core/measured/measured-table'
import type { MetricName } from '../core/measured/metrics'
import { wholeSaving } from '../core/opportunity/whole-saving'
import { settingsFrom } from '../core/opportunity/thresholds'
import { dictionaries, dictionaryNames, type DictionaryName } from '../core/focus/star'
import { scaled } from '../core/money/scaled'
import { chargedFor } from '../core/ratecard/describe'
import { findPrice } from '../core/ratecard/find-price'
import { Cube } from '../core/spend/cube'
import { segmentsOf, type SegmentRow } from '../core/spend/open-segment'
import { measureNames, SEGMENT_ROWS, type Segment } from '../core/spend/segment'
import { chargedMeeting } from '../core/standing-order/resources-meeting'
import { addDays } from '../core/time/day'
import { brackwaterCard as card } from '../demo/rate-cards'

const DAYS = 61
const FIRST = '2026-09-24'
const ACCOUNTS = 300
const REGION = 'low-coast'
const kinds = [
  { meter: 'gateway-hour', variant: null, quantity: '24' },
  { meter: 'disk-gb-month', variant: 'plain', quantity: '3' },
  { meter: 'disk-gb-month', variant: 'plain, old', quantity: '3' },
  { meter: 'server-hour', variant: 'otter-4x16', quantity: '24' },
  { meter: 'object-gb-month', variant: 'ready', quantity: '400' },
  { meter: 'snapshot-gb-month', variant: null, quantity: '9' },
] as const
/** Kinds that are found as they are: one in fifty of their share, the others are servers. */
const FOUND: ReadonlySet<number> = new Set([2, 4])
const SERVER = 3

const entry = (dictionary: DictionaryName, values: Record<string, string>) => dictionaries[dictionary].map(column => values[column] ?? null)

/** The kind of the resource at a place. */
const kindOf = (i: number): number => {
  const own = i % kinds.length
  return FOUND.has(own) && Math.floor(i / kinds.length) % 50 !== 0 ? SERVER : own
}

/** A charge a day for so many resources; what is used of a gateway is charged for all but one in fifty. */
function billOf(resources: number): Cube {
  const cube = new Cube()
  const lines = kinds.map(({ meter, variant }) => findPrice(card, meter, REGION, variant)!)
  const passed = findPrice(card, 'gateway-gb', REGION)!
  for (const name of dictionaryNames) cube.addEntry(name, 0, entry(name, {}))
  cube.addEntry('billingAccount', 0, entry('billingAccount', { ProviderName: card.provider }))
  cube.addEntry('chargeKind', 0, entry('chargeKind', { ChargeCategory: 'Usage' }))
  for (let i = 0; i < ACCOUNTS; i++)
    cube.addEntry('subAccount', i, entry('subAccount', { SubAccountId: `id-${i}`, SubAccountName: `account-${i}` }))
  for (const [i, line] of [...lines, passed].entries()) {
    cube.addEntry('sku', i, entry('sku', { SkuId: line.sku, ServiceName: line.service, SkuMeter: line.meter }))
    cube.addEntry('price', i, entry('price', { PricingUnit: line.unit, PricingCategory: 'Standard' }))
  }
  for (let i = 0; i < resources; i++)
    cube.addEntry('resource', i, entry('resource', { ResourceId: `r-${i}`, ResourceName: `resource-${i}`, RegionId: REGION }))
  const currency = cube.currencyCode(card.currency)
  const segments: Segment[] = []
  let rows: SegmentRow[] = []
  const put = (resource: number, sku: number, day: number, quantity: string, cost: string) => {
    const start = (Date.parse(`${FIRST}T00:00:00Z`) / 86_400_000 + day) * 86_400
    const keys = Object.fromEntries(dictionaryNames.map(name => [name, 0])) as Record<DictionaryName, number>
    Object.assign(keys, { resource, sku, price: sku, subAccount: resource % ACCOUNTS })
    const measures: Record<string, bigint> = Object.fromEntries(
      measureNames.map(name => [name, scaled(/Quantity/.test(name) ? quantity : cost)]),
    )
    rows.push({ start, end: start + 86_400, currency, keys, measures } as SegmentRow)
    if (rows.length < SEGMENT_ROWS) return
    segments.push(...segmentsOf(rows))
    rows = []
  }
  for (let i = 0; i < resources; i++) {
    const kind = kindOf(i)
    const cost = (Number(kinds[kind]!.quantity) * Number(lines[kind]!.tiers[0]!.price)).toFixed(6)
    for (let day = 0; day < DAYS; day++) {
      put(i, kind, day, kinds[kind]!.quantity, cost)
      if (kind === 0 && i % 50 !== 0) put(i, kinds.length, day, '5', '0.2')
    }
  }
  segments.push(...segmentsOf(rows))
  cube.setPeriod({
    source: 'bench',
    billingPeriodStart: `${FIRST}T00:00:00Z`,
    billingPeriodEnd: `${addDays(FIRST, DAYS)}T00:00:00Z`,
    deliveredAt: FIRST,
    segments,
  })
  return cube
}
/** What is measured of the first tenth: processor and memory of machines, operations and throughput of disks; some stand still at night. */
function measuredOf(resources: number) {
  const builder = new MeasuredTableBuilder(addDays(FIRST, DAYS - 1))
  const metrics: readonly { metric: MetricName; kinds: readonly number[] }[] = [
    { metric: 'cpu', kinds: [SERVER] },
    { metric: 'memory', kinds: [SERVER] },
    { metric: 'operations', kinds: [1, 2] },
    { metric: 'throughput', kinds: [1, 2] },
  ]
  const measured = Array.from({ length: resources / 10 }, (_, i) => ({ id: `r-${i}`, kind: kindOf(i), seed: (i * 2_654_435_761) % 97 }))
  for (const { metric, kinds } of metrics)
    for (let back = HOURLY_DAYS; back > 0; back--) {
      const day = addDays(FIRST, DAYS - back)
      const hours = measured
        .filter(({ kind }) => kinds.includes(kind))
        .map(
          ({ id, seed }) =>
            [
              id,
              Float32Array.from({ length: 24 }, (_, hour) => (seed % 50 === 0 && hour < 7 ? 0 : 20 + ((seed + hour * 7) % 60))),
            ] as const,
        )
      builder.add({ metric, day, hours: new Map(hours) })
    }
  return measuredIn(builder.table())
}
const facts = {
  cards: new Map([[card.provider, card]]),
  charged: Object.fromEntries(card.prices.map(line => [line.sku, chargedFor(line)])),
}
console.log('| resources | charges | found | ms | longest slice, ms | best combination, ms | without a tag, ms |')
console.log('| ---: | ---: | ---: | ---: | ---: | ---: | ---: |')
for (const resources of [10_000, 30_000, 100_000]) {
  const cube = billOf(resources)
  const measured = measuredOf(resources)
  const began = performance.now()
  const slices = lookThroughBill(cube, facts, thresholdDetectors, settingsFrom([]), measured)
  let longest = 0
  for (;;) {
    const since = performance.now()
    const { done, value } = slices.next()
    longest = Math.max(longest, performance.now() - since)
    if (!done) continue
    const took = performance.now() - began
    const combining = performance.now()
    wholeSaving(
      value.found.map(({ id, currency, effects, evidence }) => ({ id, currency, effects, day: evidence.to })),
      'EUR',
      () => null,
    )
    const combined = performance.now() - combining
    // what a standing order asks first: the resources of the last day that lack a tag
    const last = addDays(FIRST, DAYS - 1)
    const asking = performance.now()
    const lacking = chargedMeeting(cube, [{ dimension: 'Tags/owner', values: [null] }], { since: last, day: last })
    if (lacking.length !== resources) throw new Error(`${lacking.length} resources without a tag, not ${resources}`)
    const asked = performance.now() - asking
    console.log(
      `| ${resources} | ${cube.rows} | ${value.found.length} | ${Math.round(took)} | ${Math.round(longest)} | ${Math.round(combined)} | ${Math.round(asked)} |`,
    )
    break
  }
}
