import fc from 'fast-check'
import { dictionaryNames, dictionaries, type DictionaryName } from '../../core/focus/star'
import { scaled } from '../../core/money/scaled'
import { Cube } from '../../core/spend/cube'
import { segmentsOf, type SegmentRow } from '../../core/spend/open-segment'
import { measureNames } from '../../core/spend/segment'
import { dayNumber, monthEnd } from '../../core/time/day'

/** A charge as a test thinks of it: values by FOCUS column, tags by key. */
export type PlainCharge = {
  day: string
  hour: number
  currency: string
  amount: string
  values: Record<string, string | null>
  tags: Record<string, string>
  own?: Record<string, string>
  quantity?: string
  /** The list cost, where it is another. */
  list?: string
  /** The consumed quantity, where it is another than the amount. */
  consumed?: string
  /** An hour, unless said. */
  hours?: number
  /** `test`, unless said. */
  source?: string
  /** The month of the billing period: September 2026, unless said. */
  billedIn?: string
}

/** A charge by hand: one unit on 3 September 2026, and what is said of it. */
export const oneCharge = (more: Partial<PlainCharge> = {}): PlainCharge => ({
  ...{ day: '2026-09-03', hour: 0, currency: 'EUR', amount: '1', values: {}, tags: {} },
  ...more,
})

const days = Array.from({ length: 61 }, (_, i) => new Date(Date.UTC(2026, 8, 1 + i)).toISOString().slice(0, 10))
const maybe = (...values: string[]) =>
  fc.oneof({ weight: 4, arbitrary: fc.constantFrom(...values) }, { weight: 1, arbitrary: fc.constant(null) })
const amountText = fc
  .tuple(fc.integer({ min: -2_000_000, max: 40_000_000 }), fc.integer({ min: 0, max: 999_999_999 }))
  .map(
    ([units, tail]) =>
      `${units < 0 ? '-' : ''}${Math.floor(Math.abs(units) / 1000)}.${String(Math.abs(units) % 1000).padStart(3, '0')}${String(tail).padStart(9, '0')}`,
  )

export const plainCharge: fc.Arbitrary<PlainCharge> = fc.record({
  day: fc.constantFrom(...days),
  hour: fc.integer({ min: 0, max: 23 }),
  currency: fc.constantFrom('EUR', 'EUR', 'USD'),
  amount: amountText,
  values: fc.record({
    ServiceName: maybe('Servers', 'Disks', 'Log search'),
    SubAccountName: maybe('live', 'rehearsal'),
    RegionId: maybe('r1', 'r2', 'r3'),
    ResourceId: maybe(...Array.from({ length: 40 }, (_, i) => `res-${i}`)),
    ChargeCategory: fc.constantFrom('Usage', 'Credit'),
  }),
  tags: fc.dictionary(fc.constantFrom('team', 'product'), fc.constantFrom('a', 'b', 'c'), { maxKeys: 2 }),
})

export const dimensions = ['ServiceName', 'SubAccountName', 'RegionId', 'ResourceId', 'ChargeCategory', 'Tags/team', 'Tags/product']
export const valueOf = (charge: PlainCharge, dimension: string): string | null =>
  dimension.startsWith('Tags/') ? (charge.tags[dimension.slice(5)] ?? null) : (charge.values[dimension] ?? null)

/** A cube of these charges, a period to a source and billing month. @param deliveredAt by source when its deliveries were made. */
export function cubeOf(charges: PlainCharge[], deliveredAt: Record<string, string> = {}): Cube {
  const cube = new Cube()
  const periods = new Map<string, SegmentRow[]>()
  const ids = new Map<string, number>()
  const idOf = (dictionary: DictionaryName, values: (string | null)[]) => {
    const key = `${dictionary} ${JSON.stringify(values)}`
    let id = ids.get(key)
    if (id === undefined) {
      id = cube.entries[dictionary].length
      ids.set(key, id)
      cube.addEntry(dictionary, id, values)
    }
    return id
  }
  const rowOf = (charge: PlainCharge): SegmentRow => {
    const keys = Object.fromEntries(
      dictionaryNames.map(name => {
        const own = name === 'others' ? charge.own : name === 'tagSet' ? charge.tags : null
        const values = own
          ? [Object.keys(own).length ? JSON.stringify(own) : null]
          : name === 'others'
            ? [null]
            : (dictionaries[name] as readonly string[]).map(column => charge.values[column] ?? null)
        return [name, idOf(name, values)]
      }),
    ) as SegmentRow['keys']
    const amount = scaled(charge.amount)
    const measures = Object.fromEntries(measureNames.map(name => [name, amount])) as SegmentRow['measures']
    if (charge.quantity !== undefined) measures.pricingQuantity = scaled(charge.quantity)
    if (charge.list !== undefined) measures.listCost = scaled(charge.list)
    if (charge.consumed !== undefined) measures.consumedQuantity = scaled(charge.consumed)
    const start = (dayNumber(charge.day) * 24 + charge.hour) * 3600
    return { start, end: start + 3600 * (charge.hours ?? 1), currency: cube.currencyCode(charge.currency), keys, measures }
  }
  for (const charge of charges) {
    const key = JSON.stringify([charge.source ?? 'test', charge.billedIn ?? '2026-09'])
    const rows = periods.get(key) ?? []
    periods.set(key, rows)
    rows.push(rowOf(charge))
  }
  if (!charges.length) periods.set(JSON.stringify(['test', '2026-09']), [])
  for (const [key, rows] of periods) {
    const [source, month] = JSON.parse(key) as [string, string]
    cube.setPeriod({
      source,
      billingPeriodStart: `${month}-01T00:00:00Z`,
      billingPeriodEnd: `${monthEnd(month)}T00:00:00Z`,
      deliveredAt: deliveredAt[source] ?? '2099-12-01T00:00:00Z',
      segments: segmentsOf(rows),
    })
  }
  return cube
}
