import type { Finds } from '../../../core/standing-order/definition'
import type { FoundResource } from '../../../core/standing-order/found'
import { isMadeWhen } from '../../../core/standing-order/made-within'
import { Decimal } from '../../../core/money/decimal'
import { scaledText } from '../../../core/money/scaled'
import type { ResourceFacts } from '../../../core/allocation/whose'
import { addDays, type Day } from '../../../core/time/day'
import type { ChargesSeen } from '../../charges/charges-seen'
import { connectors } from '../../connectors/connect'
import type { Db } from '../../db/database'
import { makingsOf } from '../../stores/observed'
import { currentPlan } from '../../stores/organisation'
import { ALWAYS } from '../resource-facts'

/** So far back the last day of a provider's charges is looked for: one that is further behind shows nothing that is there now. */
const DAYS_BEHIND = 35
export const DAYS_OF_COST = 30
/** So many resources are asked for at once. */
const AT_ONCE = 2000

type From = { db: Db; seen: ChargesSeen }
type Plain = Omit<FoundResource, 'makings' | 'owner' | 'saving' | 'costOfMonth' | 'costSoFar' | 'firstDay' | 'isOlder'> & {
  tags: Record<string, string>
}

/** The first day that no charge is of yet: what an order takes for today. @returns null before there are charges. */
export async function orderDay({ seen }: Pick<From, 'seen'>): Promise<Day | null> {
  const { result } = await seen.ask('facts', undefined)
  return result.lastDay && addDays(result.lastDay, 1)
}

/**
 * Resources that an order looks for, with all that is known of each, by name. Of what is charged, those that are there on the last day of
 * their provider's charges; of those named, which may not be charged yet, what their cloud says of them.
 * @param told resources whose making was told just now; null for all that are charged.
 */
export async function findResources(
  from: From,
  { conditions, made, costAtLeast }: Extract<Finds, { what: 'resources' }>,
  told: readonly { connection: string; id: string }[] | null,
): Promise<FoundResource[]> {
  const { seen, db } = from
  const today = await orderDay(from)
  if (today === null) return []
  const day = addDays(today, -1)
  const isThere = await presentResources(seen, day)
  const named = told && (await toldResources(db, told))
  const asked = { conditions, since: isThere.since, day, resources: named && named.map(factsOf) }
  const { result: meeting } = await seen.ask('meeting', asked)
  const ids = told ? meeting : meeting.filter(id => isThere.ids.has(id))
  const makings = new Map<string, FoundResource['makings']>()
  const firstDays = new Map<string, Day>()
  for (const some of inParts(ids)) {
    for (const [id, own] of await makingsOf(db, some)) makings.set(id, own)
    for (const [id, first] of await firstDaysOf(seen, some)) firstDays.set(id, first)
  }
  const begins = await firstOfProviders(seen)
  const whenMade = (id: string) => {
    const firstDay = firstDays.get(id) ?? null
    return {
      makings: makings.get(id) ?? [],
      firstDay,
      isOlder: firstDay !== null && begins.has(`${isThere.providers.get(id) ?? ''} ${firstDay}`),
    }
  }
  const kept = ids.filter(id => !made || isMadeWhen(made, whenMade(id), today))
  const byId = new Map((named ?? []).map(one => [one.resourceId, one]))
  const found: FoundResource[] = []
  for (const some of inParts(kept)) {
    const charged = await chargedFacts(seen, some, isThere.since, day)
    const plain = some.flatMap(id => charged.get(id) ?? byId.get(id) ?? [])
    const [ofMonth, soFar, owners] = await Promise.all([
      costsOf(seen, some, addDays(today, -DAYS_OF_COST), today),
      costsOf(seen, some, ALWAYS.start, ALWAYS.end),
      ownersOf(from, plain, day),
    ])
    for (const { tags: _, ...one } of plain)
      found.push({
        ...one,
        ...whenMade(one.resourceId),
        costOfMonth: ofMonth.get(one.resourceId) ?? [],
        costSoFar: soFar.get(one.resourceId) ?? [],
        owner: owners.get(one.resourceId) ?? null,
        saving: null,
      })
  }
  const costsEnough = ({ costOfMonth }: FoundResource) =>
    costAtLeast === null || costOfMonth.some(({ amount }) => new Decimal(amount).gte(costAtLeast))
  return found.filter(costsEnough).sort(byName)
}

/** In the order in which a person looks for one. */
export const byName = (a: FoundResource, b: FoundResource) =>
  a.subAccountName === b.subAccountName
    ? compare(a.name, b.name) || compare(a.resourceId, b.resourceId)
    : compare(a.subAccountName, b.subAccountName)
const compare = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0)

function* inParts(ids: readonly string[]): Generator<string[]> {
  for (let at = 0; at < ids.length; at += AT_ONCE) yield ids.slice(at, at + AT_ONCE)
}

const factsOf = ({ resourceId: id, name, provider, region, subAccountName, tags }: Plain): ResourceFacts => ({
  ...{ id, name, provider, region: region ?? '', subAccountName, tags },
})

/** Resources that are charged on the last day of their provider's charges, and the earliest of those days. */
async function presentResources(
  seen: ChargesSeen,
  day: Day,
): Promise<{ ids: ReadonlySet<string>; since: Day; providers: ReadonlyMap<string, string> }> {
  const scope = { end: addDays(day, 1), leaveOut: {}, keep: {}, grain: 'day' as const, measures: [] }
  const { result: lately } = await seen.ask('group', { ...scope, start: addDays(day, -DAYS_BEHIND), splitBy: ['ProviderName'] })
  const last = new Map<string, Day>()
  for (const { values, start } of lately) {
    const provider = values.ProviderName ?? ''
    if (start! > (last.get(provider) ?? '')) last.set(provider, start!)
  }
  const since = [...last.values()].reduce((a, b) => (a < b ? a : b), day)
  const { result: resources } = await seen.ask('group', { ...scope, start: since, splitBy: ['ResourceId', 'ProviderName'] })
  const ids = new Set(
    resources.flatMap(({ values, start }) =>
      values.ResourceId && start === last.get(values.ProviderName ?? '') ? [values.ResourceId] : [],
    ),
  )
  const providers = new Map(resources.flatMap(({ values }) => (values.ResourceId ? [[values.ResourceId, values.ProviderName ?? '']] : [])))
  return { ids, since, providers }
}

/** What their clouds say of resources that were told of; one that is gone, or of which nobody says what it is, is left out. */
async function toldResources(db: Db, told: readonly { connection: string; id: string }[]): Promise<Plain[]> {
  const byConnection = new Map((await connectors(db)).map(one => [one.name, one]))
  const found: Plain[] = []
  for (const { connection, id } of told) {
    const connector = byConnection.get(connection)
    const condition = await connector?.can.inventory?.condition(id)
    if (!connector || !condition) continue
    const { name, type, region, account, tags } = condition
    found.push({ resourceId: id, name: name ?? id, type, provider: connector.provider, region, subAccountName: account ?? '', tags })
  }
  return found
}

/** The days with which the charges of providers begin, each as `provider day`. */
async function firstOfProviders(seen: ChargesSeen): Promise<Set<string>> {
  const { result } = await seen.ask('group', { ...ALWAYS, ...USED, splitBy: ['ProviderName'], grain: 'day', measures: [] })
  const first = new Map<string, Day>()
  for (const { values, start } of result) {
    const provider = values.ProviderName ?? ''
    if (start! < (first.get(provider) ?? '9')) first.set(provider, start!)
  }
  return new Set([...first].map(([provider, day]) => `${provider} ${day}`))
}

/** Corrections and what is bought tell of other days than those on which something was there. */
const USED = { keep: { ChargeCategory: ['Usage'] }, leaveOut: { ChargeClass: ['Correction'] } }

const FACTS = ['ResourceId', 'ResourceName', 'ResourceType', 'ProviderName', 'RegionId', 'SubAccountName'] as const

/** What the newest charges say of resources. */
async function chargedFacts(seen: ChargesSeen, ids: string[], since: Day, day: Day): Promise<Map<string, Plain>> {
  const { result } = await seen.ask('group', {
    ...{ start: since, end: addDays(day, 1), keep: { ResourceId: ids }, leaveOut: {} },
    ...{ splitBy: [...FACTS], grain: 'day', measures: [] },
  })
  const found = new Map<string, Plain>()
  for (const { values } of [...result].sort((a, b) => (a.start! < b.start! ? -1 : 1))) {
    const id = values.ResourceId!
    const {
      ResourceName: name,
      ResourceType: type = null,
      ProviderName: provider,
      RegionId: region = null,
      SubAccountName: account,
    } = values
    found.set(id, { resourceId: id, name: name ?? id, type, provider: provider ?? '', region, subAccountName: account ?? '', tags: {} })
  }
  return found
}

async function firstDaysOf(seen: ChargesSeen, ids: string[]): Promise<Map<string, Day>> {
  const { result } = await seen.ask('group', {
    ...{ ...ALWAYS, ...USED, keep: { ...USED.keep, ResourceId: ids }, splitBy: ['ResourceId'], grain: 'day', measures: [] },
  })
  const first = new Map<string, Day>()
  for (const { values, start } of result) {
    const id = values.ResourceId!
    if (start! < (first.get(id) ?? '9')) first.set(id, start!)
  }
  return first
}

/** What resources cost between two days, in effective cost, by currency. */
export async function costsOf(seen: ChargesSeen, ids: string[], start: Day, end: Day): Promise<Map<string, FoundResource['costOfMonth']>> {
  const { result } = await seen.ask('group', {
    ...{ start, end, keep: { ResourceId: ids }, leaveOut: {}, splitBy: ['ResourceId'], grain: null, measures: ['effectiveCost'] },
  })
  const costs = new Map<string, FoundResource['costOfMonth']>()
  for (const { values, currency, amounts } of result) {
    const id = values.ResourceId!
    costs.set(id, [...(costs.get(id) ?? []), { currency, amount: scaledText(amounts[0]!) }])
  }
  return costs
}

/** The people whose resources are by the rules of allocation. */
export async function ownersOf({ db, seen }: From, resources: readonly Plain[], day: Day): Promise<Map<string, string>> {
  const [{ result }, plan] = await Promise.all([seen.ask('whose', { resources: resources.map(factsOf), day }), currentPlan(db)])
  const people = new Map((plan?.plan.centres ?? []).map(({ id, owner }) => [id, owner]))
  return new Map(
    Object.entries(result).flatMap(([id, owner]) => {
      const person = owner && people.get(owner.target)
      return person ? [[id, person] as const] : []
    }),
  )
}
