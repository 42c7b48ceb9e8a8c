import { and, eq, inArray, isNotNull } from 'drizzle-orm'
import { TupleIndex } from '../../core/focus/column-values'
import { scaledText, type Scaled } from '../../core/money/scaled'
import { beyondScaled } from '../../core/money/limbs'
import { Sums } from '../../core/spend/sums'
import { isoInstant } from '../../core/time/instant'
import type { MovedLines } from '../../shared/contracts/imports'
import type { ChargeStore } from '../charges/charge-store'
import type { Database } from '../db/database'
import { billingPeriod, dictionaryTables } from '../db/schema'
import { currencyList, storedSegments } from '../charges/stored-segments'

const MOST_LINES = 500
const keyNames = ['subAccount', 'sku', 'resource'] as const
type Line = { start: string; currency: string; ids: number[]; before: Scaled; after: Scaled }

const size = (value: Scaled) => (value < 0n ? -value : value)

/** Two loads of a billing period; null where there is nothing of it. */
export type Restated = { start: string; previousLoadId: number | null; loadId: number | null }
type Kept = { database: Database; charges: ChargeStore }

/** Lines (sub account, SKU, resource) whose billed cost differs between two loads of a billing period. */
async function movedIn(charges: ChargeStore, { start, previousLoadId, loadId }: Restated): Promise<Line[]> {
  const index = new TupleIndex(4)
  const tuple = new Int32Array(4)
  const { currencies, code } = currencyList()
  const lines: { ids: number[]; currency: number }[] = []
  const sums = await Promise.all(
    [previousLoadId, loadId].map(async id => {
      const sum = new Sums(1024)
      if (id === null) return sum
      for await (const {
        rows,
        keys,
        currency,
        measures: {
          billedCost: { high, low, largest, beyond },
        },
      } of storedSegments(charges, id, start, code)) {
        const run = Sums.run(largest)
        const lineOf = new Map<number, number>()
        for (let from = 0; from < rows; from += run) {
          const to = Math.min(rows, from + run)
          sum.reserve(to - from, largest)
          for (let row = from; row < to; row++) {
            keyNames.forEach((name, i) => {
              tuple[i] = keys[name].ids[keys[name].codes[row]!]!
            })
            tuple[3] = currency[row]!
            const line = index.place(tuple)
            if (line === lines.length) lines.push({ ids: [tuple[0]!, tuple[1]!, tuple[2]!], currency: tuple[3]! })
            sum.grow(line + 1)
            sum.high[line]! += high[row]!
            sum.low[line]! += low[row]!
            if (beyond) lineOf.set(row, line)
          }
        }
        beyond?.rows.forEach((row, i) => sum.addScaled(lineOf.get(row)!, beyondScaled(beyond.parts[i]!)))
      }
      return sum
    }),
  )
  for (const sum of sums) sum.grow(lines.length)
  return lines.flatMap(({ ids, currency }, line) => {
    const [before, after] = sums.map(sum => sum.total(line)) as [Scaled, Scaled]
    return before === after ? [] : [{ start, currency: currencies[currency]!, ids, before, after }]
  })
}

/** Lines (sub account, service, SKU, resource) whose billed cost a load changed against the one it replaced, largest change first. */
export async function movedBy(kept: Kept, id: string): Promise<MovedLines> {
  const periods = await kept.database.db
    .select()
    .from(billingPeriod)
    .where(and(eq(billingPeriod.loadId, Number(id)), isNotNull(billingPeriod.previousLoadId)))
  return movedBetween(
    kept,
    periods.map(({ start, ...loads }) => ({ ...loads, start: isoInstant(start) })),
  )
}

/** The same of any two loads of billing periods. */
export async function movedBetween({ database: { db }, charges }: Kept, periods: readonly Restated[]): Promise<MovedLines> {
  const lines: Line[] = []
  for (const period of periods) lines.push(...(await movedIn(charges, period)))
  lines.sort((a, b) => {
    const [left, right] = [size(a.after - a.before), size(b.after - b.before)]
    return left > right
      ? -1
      : left < right
        ? 1
        : a.start < b.start
          ? -1
          : a.start > b.start
            ? 1
            : a.ids[2]! - b.ids[2]! || a.ids[1]! - b.ids[1]!
  })
  const shown = lines.slice(0, MOST_LINES)
  const entries = await Promise.all(
    keyNames.map(async (name, i) => {
      const rows = shown.length
        ? await db
            .select()
            .from(dictionaryTables[name])
            .where(inArray(dictionaryTables[name].id, [...new Set(shown.map(line => line.ids[i]!))]))
        : []
      return new Map(rows.map(row => [row.id, row as unknown as Record<string, string | null>]))
    }),
  )
  return {
    lines: shown.map(({ start, currency, ids, before, after }) => {
      const [subAccount, sku, resource] = ids.map((key, i) => entries[i]!.get(key)!) as [
        Record<string, string | null>,
        Record<string, string | null>,
        Record<string, string | null>,
      ]
      return {
        billingPeriodStart: start,
        currency,
        subAccount: subAccount.SubAccountName ?? null,
        service: sku.ServiceName ?? null,
        sku: sku.SkuMeter ?? sku.SkuId ?? null,
        resource: resource.ResourceName ?? resource.ResourceId ?? null,
        before: scaledText(before),
        after: scaledText(after),
        difference: scaledText(after - before),
      }
    }),
    rest: lines.length - shown.length,
  }
}
