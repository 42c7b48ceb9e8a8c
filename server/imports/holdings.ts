import { and, gt, inArray, lt } from 'drizzle-orm'
import type { Holding } from '../../core/focus/meeting'
import { runsOf } from '../../core/time/day-runs'
import { isoInstant } from '../../core/time/instant'
import type { ChargeStore } from '../charges/charge-store'
import type { PeriodOf } from '../charges/period-history'
import { currencyList, storedSegments } from '../charges/stored-segments'
import type { Database } from '../db/database'
import { billingPeriod, load, type Held } from '../db/schema'

/** A billing period as a load has it. */
export type LoadedPeriod = PeriodOf & { loadId: number }
/** What a load holds of a billing period. */
export type LoadHolding = Holding & LoadedPeriod

/** What loads hold of billing periods, as was kept when they were read; for what was loaded before that was kept, from the charges. */
export async function holdingsOf(database: Database, charges: ChargeStore, periods: readonly LoadedPeriod[]): Promise<LoadHolding[]> {
  if (!periods.length) return []
  const rows = await database.db
    .select({ id: load.id, held: load.held })
    .from(load)
    .where(inArray(load.id, [...new Set(periods.map(({ loadId }) => loadId))]))
  const kept = new Map(rows.map(({ id, held }) => [id, held]))
  const held: Held[] = []
  for (const { loadId, start } of periods) {
    const own = Object.entries(kept.get(loadId) ?? {}).find(([at]) => Date.parse(at) === Date.parse(start))?.[1]
    held.push(own ?? (await readHeld(charges, loadId, start)))
  }
  const pairs = held.flatMap(({ accounts }) => accounts)
  const [accountNames, subAccountNames] = await Promise.all([
    namesOf(
      charges,
      'billingAccount',
      pairs.map(([account]) => account),
    ),
    namesOf(
      charges,
      'subAccount',
      pairs.map(([, subAccount]) => subAccount),
    ),
  ])
  return periods.map((period, i) => {
    const accounts = new Map<string, Set<string>>()
    for (const [account, subAccount] of held[i]!.accounts) {
      const name = accountNames.get(account) ?? ''
      accounts.set(name, (accounts.get(name) ?? new Set()).add(subAccountNames.get(subAccount) ?? ''))
    }
    return { ...period, start: isoInstant(period.start), end: isoInstant(period.end), accounts, days: held[i]!.days }
  })
}

/** Billing periods that count now and reach into a time. */
export async function countingWithin(database: Database, start: string, end: string): Promise<LoadedPeriod[]> {
  const rows = await database.db
    .select()
    .from(billingPeriod)
    .where(and(lt(billingPeriod.start, end), gt(billingPeriod.end, start)))
  return rows.map(row => ({ source: row.source, start: isoInstant(row.start), end: isoInstant(row.end), loadId: row.loadId }))
}

/** The id, which is the first value of an entry, of each entry. */
async function namesOf(charges: ChargeStore, name: 'billingAccount' | 'subAccount', ids: number[]): Promise<Map<number, string | null>> {
  const entries = ids.length ? await charges.entries.among(name, [...new Set(ids)]) : []
  return new Map(entries.map(([id, name]) => [id, name ?? null]))
}

async function readHeld(charges: ChargeStore, loadId: number, start: string): Promise<Held> {
  const pairs = new Map<string, [number, number]>()
  const days = new Set<number>()
  for await (const { rows, keys, time } of storedSegments(charges, loadId, start, currencyList().code)) {
    for (const second of time.starts) days.add(Math.floor(second / 86_400))
    for (let row = 0; row < rows; row++) {
      const pair: [number, number] = [
        keys.billingAccount.ids[keys.billingAccount.codes[row]!]!,
        keys.subAccount.ids[keys.subAccount.codes[row]!]!,
      ]
      pairs.set(pair.join(), pair)
    }
  }
  return { accounts: [...pairs.values()], days: runsOf(days) }
}
