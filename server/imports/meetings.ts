import { eq, or } from 'drizzle-orm'
import { haveOtherSubAccounts, sharedAccounts } from '../../core/focus/meeting'
import type { ImportOverlap } from '../../shared/contracts/imports'
import type { ChargeStore } from '../charges/charge-store'
import type { Database } from '../db/database'
import { load, sideBySide } from '../db/schema'
import { countingWithin, holdingsOf, type LoadedPeriod, type LoadHolding } from './holdings'

/** Something that is to count meets what counts: the same billing account for the same time, or a newer delivery of the same source. */
export type Meeting = ImportOverlap & {
  /** Whether both could count: no sub account is in both. */
  bothCanCount: boolean
  theirs: LoadHolding
}

/**
 * What billing periods of loads that are to count meet: periods that count and are neither of the same source and start, which they would
 * replace, nor among `goes`; and each other.
 */
export async function meetingsOf(
  database: Database,
  charges: ChargeStore,
  comes: readonly LoadedPeriod[],
  goes: readonly Pick<LoadedPeriod, 'source' | 'start'>[] = [],
): Promise<Meeting[]> {
  if (!comes.length) return []
  const time = (list: string[], pick: (...n: number[]) => number) => new Date(pick(...list.map(text => Date.parse(text)))).toISOString()
  const counting = await countingWithin(
    database,
    time(
      comes.map(({ start }) => start),
      Math.min,
    ),
    time(
      comes.map(({ end }) => end),
      Math.max,
    ),
  )
  const isSame = (a: Pick<LoadedPeriod, 'source' | 'start'>, b: Pick<LoadedPeriod, 'source' | 'start'>) =>
    a.source === b.source && Date.parse(a.start) === Date.parse(b.start)
  const stay = counting.filter(period => ![...comes, ...goes].some(other => isSame(period, other)))
  const [ours, theirs] = [await holdingsOf(database, charges, comes), await holdingsOf(database, charges, stay)]
  const allowed = await sidesBySide(
    database,
    ours.map(({ source }) => source),
  )
  const found: Meeting[] = []
  ours.forEach((own, i) => {
    for (const other of [...theirs, ...ours.slice(0, i)]) {
      const shared = sharedAccounts(own, other)
      const bothCanCount = own.source !== other.source && haveOtherSubAccounts(own, other)
      if (!shared.length || (bothCanCount && allowed.has(pairOf(own.source, other.source)))) continue
      found.push({
        source: other.source,
        billingPeriodStart: other.start,
        billingAccountIds: shared,
        others: [...other.accounts.keys()].filter(account => !shared.includes(account)),
        because: 'same account',
        bothCanCount,
        theirs: other,
      })
    }
  })
  return found
}

/** Periods of a load whose source has a newer delivery that counts, as far as anyone said when they were made. */
export async function newerDeliveries(
  database: Database,
  charges: ChargeStore,
  id: number,
  periods: readonly LoadedPeriod[],
): Promise<Meeting[]> {
  const [own] = await database.db.select().from(load).where(eq(load.id, id))
  const { deliveredAt, deliveredBy } = own ?? {}
  if (!deliveredAt || deliveredBy === 'arrival') return []
  const found: LoadedPeriod[] = []
  for (const { source, start, end } of periods) {
    for (const counting of await countingWithin(database, start, end)) {
      if (counting.source !== source || Date.parse(counting.start) !== Date.parse(start)) continue
      const [other] = await database.db.select().from(load).where(eq(load.id, counting.loadId))
      // times that different clocks say are not compared: then what arrives later is the newer
      if (other?.deliveredAt && other.deliveredBy === deliveredBy && Date.parse(other.deliveredAt) > Date.parse(deliveredAt))
        found.push(counting)
    }
  }
  return (await holdingsOf(database, charges, found)).map(theirs => ({
    source: theirs.source,
    billingPeriodStart: theirs.start,
    billingAccountIds: [...theirs.accounts.keys()],
    others: [],
    because: 'newer',
    bothCanCount: false,
    theirs,
  }))
}

const pairOf = (a: string, b: string) => JSON.stringify([a, b].sort())

/** Pairs of sources of which someone has said that both count. */
async function sidesBySide(database: Database, sources: readonly string[]): Promise<Set<string>> {
  const [source] = sources
  if (source === undefined) return new Set()
  const rows = await database.db
    .select()
    .from(sideBySide)
    .where(or(...[...new Set(sources)].flatMap(own => [eq(sideBySide.source, own), eq(sideBySide.other, own)])))
  return new Set(rows.map(({ source, other }) => pairOf(source, other)))
}

/** Keeps that two sources count beside each other. */
export async function putSideBySide(database: Database, source: string, other: string, who: string): Promise<void> {
  const [first, second] = [source, other].sort() as [string, string]
  await database.db.insert(sideBySide).values({ source: first, other: second, who }).onConflictDoNothing()
}
