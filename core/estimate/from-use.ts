import { Decimal, decimalText, sum, type DecimalText } from '../money/decimal'
import { describeLine } from '../ratecard/describe'
import { findSku } from '../ratecard/find-price'
import type { PriceLine, RateCard } from '../ratecard/rate-card'
import type { UsedLine } from '../spend/used'
import { evaluate } from '../working/working'
import { hoursOfMonth, type Month } from '../time/day'
import { newEstimate, newRow, type Estimate } from './estimate'
import { placeText } from './pricing/place'
import { priceEstimate } from './pricing/price-estimate'

type Known = UsedLine & { line: PriceLine; quantityValue: Decimal }
type Row = { part: string; kind: string; where: string; inputs: Record<string, string>; note: string }

/**
 * An estimate of what ran in a month, with its measured quantities and the month's own hours: priced on the card of that time it gives
 * what the bill says at list price. Resources of the same size that ran as long become one row. What has a form becomes a row of its
 * kind, everything else a metered line.
 * @param cards by provider, as they held in that month; `revisions` says which revision of their day they are.
 * @returns the estimate, and the lines whose SKU no card has.
 */
export function estimateFromUse(
  name: string,
  month: Month,
  lines: readonly UsedLine[],
  cards: ReadonlyMap<string, RateCard>,
  newId: () => string,
  revisions: ReadonlyMap<string, number> = new Map(),
): { estimate: Estimate; unknown: UsedLine[] } {
  const unknown: UsedLine[] = []
  const known = lines
    .flatMap((used): Known[] => {
      const line = findSku(cards.get(used.provider) ?? noCard, used.sku)
      if (!line) unknown.push(used)
      return line ? [{ ...used, line, quantityValue: new Decimal(used.quantity) }] : []
    })
    .filter(used => used.quantityValue.gt(0))
  const byProvider = group(known, used => used.provider)
  const provider = [...byProvider].sort(([, a], [, b]) => b.length - a.length)[0]?.[0] ?? cards.keys().next().value ?? ''
  const card = cards.get(provider)
  if (!card) return { estimate: newEstimate(name, { provider, validFrom: `${month}-01`, currency: 'EUR' }, ''), unknown }
  const region =
    [...group(byProvider.get(provider) ?? [], used => used.region)].sort(([, a], [, b]) => b.length - a.length)[0]?.[0] ??
    card.regions[0]!.id
  const estimate: Estimate = {
    ...newEstimate(name, card, region),
    month,
    cards: [...cards.values()]
      .filter(c => byProvider.has(c.provider) || c === card)
      .map(c => ({ provider: c.provider, date: c.validFrom, revision: revisions.get(c.provider) ?? 1 })),
  }
  const hours = hoursOfMonth(month)
  const rows = [...group(known, used => `${used.provider}\n${used.region}`).values()].flatMap(list =>
    rowsOf(list, placeText(list[0]!.provider, list[0]!.region, estimate), hours, cards.get(list[0]!.provider)!),
  )
  estimate.components = rows.map(({ where, part, kind, inputs, note }) => newRow(newId(), part, kind, { ...inputs, where }, { note }))
  return { estimate, unknown }
}

/**
 * What the estimate costs at list price in its month against the list cost that the bill has for the same use. They differ where the bill
 * counts tiers over everything in the account and the estimate over its own rows only.
 * @returns null where amounts of several currencies cannot be compared; `tiered` names the lines that have tiers.
 */
export function againstBill(
  estimate: Estimate,
  cards: ReadonlyMap<string, RateCard>,
  lines: readonly UsedLine[],
  listCost: readonly { currency: string; amount: DecimalText }[],
): { difference: DecimalText; tiered: string[] } | null {
  const [listed, ...others] = listCost
  if (!listed || others.length || listed.currency !== estimate.currency) return null
  const { total } = priceEstimate(estimate, { cards, uplifts: [], rates: [] })
  const difference = evaluate(total.monthly).minus(listed.amount)
  const skus = new Map(
    lines
      .flatMap(used => findSku(cards.get(used.provider) ?? noCard, used.sku) ?? [])
      .filter(line => line.tiers.length > 1)
      .map(line => [line.sku, describeLine(line, cards.get(lines.find(l => l.sku === line.sku)!.provider)!)]),
  )
  return { difference: decimalText(difference), tiered: [...skus.values()] }
}

const noCard: RateCard = { provider: '', currency: 'EUR', validFrom: '2000-01-01', regions: [], serverSizes: [], prices: [] }

function group<T>(items: readonly T[], key: (item: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>()
  for (const item of items) {
    const list = groups.get(key(item))
    if (list) list.push(item)
    else groups.set(key(item), [item])
  }
  return groups
}

/** Lines of one place as rows. */
function rowsOf(lines: Known[], where: string, monthHours: number, card: RateCard): Row[] {
  const taken = new Set<Known>()
  const take = (meter: string) =>
    lines
      .filter(used => used.line.meter === meter && !taken.has(used))
      .map(used => {
        taken.add(used)
        return used
      })
  const total = (list: Known[]) => decimalText(sum(list.map(used => used.quantityValue)))
  const names = (list: Known[]) => [...new Set(list.flatMap(used => used.resourceName ?? used.resource ?? []))]
  const row = (list: Known[], kind: string, inputs: Record<string, string>): Row => {
    const called = names(list)
    return {
      part: list[0]!.service,
      kind,
      where,
      inputs,
      note: called.length ? `${called.slice(0, 4).join(', ')}${called.length > 4 ? ` and ${called.length - 4} more` : ''}` : '',
    }
  }
  /** Rows for equal quantities of a variant: so many that ran as long, or are as large. */
  const alike = (list: Known[], make: (variant: string, quantity: string, count: string) => [string, Record<string, string>]) =>
    [...group(list, used => `${used.line.variant}\n${used.quantity}`).values()]
      .sort((a, b) => b[0]!.quantityValue.cmp(a[0]!.quantityValue))
      .map(same => row(same, ...make(same[0]!.line.variant ?? '', same[0]!.quantity, String(same.length))))
  const rows: Row[] = [
    // one resource that ran for more hours than the month has stands for several
    ...alike(
      take('server-hour').filter(used => fits(used, monthHours, taken)),
      (size, hoursPerMonth, count) => [
        'server',
        { size, hoursPerMonth, count, pays: 'on-demand', system: 'open, no licence', host: 'shared host', peakCount: '0' },
      ],
    ),
    ...alike(
      take('disk-gb-month').filter(used => used.quantityValue.gte(1) || !taken.delete(used)),
      (kind, storageGb, count) => ['disk', { class: kind, storageGb, count, iops: '0', mbps: '0', transactions: '0' }],
    ),
    ...databases(lines, take, taken, monthHours, row),
  ]
  const snapshots = take('snapshot-gb-month')
  if (snapshots.length)
    rows.push(row(snapshots, 'snapshot', { protectedGb: total(snapshots), count: '1', changePercent: '0', daysKept: '1' }))
  for (const [kind, kept] of group(take('object-gb-month'), used => used.line.variant ?? '')) {
    const of = (meter: string) => take(meter).filter(used => used.line.variant === kind || !taken.delete(used))
    const [writes, reads] = [of('object-write-1000'), of('object-read-1000')].map(list => new Decimal(total(list)).times(1000))
    if (writes!.round(0).eq(writes!) && reads!.round(0).eq(reads!))
      rows.push(
        row(kept, 'object-storage', {
          class: kind,
          storageGb: total(kept),
          writes: decimalText(writes!),
          reads: decimalText(reads!),
          retrievedGb: '0',
        }),
      )
  }
  const sent = take('transfer-out-gb')
  if (sent.length) rows.push(row(sent, 'internet-transfer', { sentGb: total(sent) }))
  rows.push(
    ...gateways(
      'gateway',
      'passedGb',
      take('gateway-hour').filter(used => fits(used, monthHours, taken)),
      take('gateway-gb'),
      total,
      row,
    ),
  )
  rows.push(
    ...gateways(
      'load-balancer',
      'balancedGb',
      take('load-balancer-hour').filter(used => fits(used, monthHours, taken)),
      take('load-balancer-gb'),
      total,
      row,
    ),
  )
  const others = group(
    lines.filter(used => !taken.has(used)),
    used => used.sku,
  )
  for (const [sku, list] of others)
    rows.push({ ...row(list, 'metered', { sku, quantity: total(list) }), note: describeLine(list[0]!.line, card) })
  return rows
}

/** Whether its hours fit into the month; else it goes back to become a metered line. */
function fits(used: Known, monthHours: number, taken: Set<Known>): boolean {
  if (used.quantityValue.lte(monthHours)) return true
  taken.delete(used)
  return false
}

type Take = (meter: string) => Known[]
type MakeRow = (list: Known[], kind: string, inputs: Record<string, string>) => Row

/** A database's node hours and its storage belong to one row: they are of one resource. */
function databases(lines: Known[], take: Take, taken: Set<Known>, monthHours: number, row: MakeRow): Row[] {
  const storage = new Map(
    lines.filter(used => used.line.meter === 'database-gb-month' && used.resource).map(used => [used.resource!, used]),
  )
  const nodes = take('database-hour').filter(used => fits(used, monthHours, taken))
  const paired = nodes.filter(used => (used.resource && storage.get(used.resource)?.quantityValue.gte(1)) || !taken.delete(used))
  const alike = group(paired, used => `${used.line.variant}\n${used.quantity}\n${storage.get(used.resource!)!.quantity}`)
  return [...alike.values()].map(same => {
    for (const used of same) taken.add(storage.get(used.resource!)!)
    return row(same, 'database', {
      size: same[0]!.line.variant!,
      engine: 'open engine, no licence',
      hoursPerMonth: same[0]!.quantity,
      count: String(same.length),
      storageGb: storage.get(same[0]!.resource!)!.quantity,
      zones: '1',
      replicas: '0',
      iops: '0',
      backupGb: '0',
      pays: 'on-demand',
    })
  })
}

/** Hours of things that exist, those that existed as long in one row; what passed all of them stands in the first. */
function gateways(
  kind: string,
  passedField: string,
  existing: Known[],
  passed: Known[],
  total: (list: Known[]) => string,
  row: MakeRow,
): Row[] {
  return [...group(existing, used => used.quantity).values()].map((same, i) =>
    row(same, kind, { hoursPerMonth: same[0]!.quantity, count: String(same.length), [passedField]: i === 0 ? total(passed) : '0' }),
  )
}
