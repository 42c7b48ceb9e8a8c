import { scaledText } from '../../core/money/scaled'
import { sumByCurrency } from '../../core/spend/answer'
import { CONTAINER_COLUMN, CREATED_BY_COLUMN } from '../../core/spend/dimension'
import type { SkuMeaning } from '../../core/ratecard/sku-meanings'
import { runTimes, type RunTimes } from '../../core/spend/run-times'
import { addDays, daysBetween } from '../../core/time/day'
import type { ResourceView } from '../../shared/contracts/resources'
import { ruleWords } from '../../shared/words/rules'
import { notFound } from '../problems/problem'
import type { Work } from './work'
import { currentPlan } from '../stores/organisation'
import { findNote } from '../stores/resource-notes'
import { listOpportunities } from '../stores/savings'
import type { ChargesSeen } from '../charges/charges-seen'
import { reportedTo } from '../charges/delivered-days'

const ALWAYS = { start: '1970-01-01', end: '2200-01-01', leaveOut: {} }
const FACTS = [
  'ResourceName',
  'ResourceType',
  'RegionId',
  'RegionName',
  'ProviderName',
  'SubAccountName',
  'ServiceName',
  CONTAINER_COLUMN,
  CREATED_BY_COLUMN,
  'x_Protects',
  'CommitmentDiscountName',
] as const
const PROTECTS_COLUMN = 'x_Protects'

/**
 * Gathers what is known about a resource: from its charges, rate cards, rules, opportunities and notes. @throws Problem when no charge
 * names it.
 */
export async function viewResource(
  { database, seen, people, asker }: Pick<Work, 'database' | 'seen' | 'people' | 'asker'>,
  id: string,
): Promise<ResourceView> {
  const { db } = database
  const keep = { ResourceId: [id] }
  const { result: data } = await seen.ask('facts', undefined)
  const tagKeys = data.tags.map(name => name.slice('Tags/'.length))
  const details = data.found.filter(name => name.startsWith('SkuPriceDetails/'))
  const group = (
    splitBy: readonly string[],
    grain: 'day' | 'month',
    measures: readonly ('billedCost' | 'effectiveCost' | 'pricingQuantity')[],
  ) => seen.ask('group', { ...ALWAYS, keep, splitBy: [...splitBy], grain, measures: [...measures] })
  const [facts, tagged, months, meters, priced, saved, found, note] = await Promise.all([
    group(FACTS, 'day', ['billedCost']),
    group(
      tagKeys.flatMap(key => [`Tags/${key}`, `TagsFrom/${key}`]),
      'day',
      [],
    ),
    group([], 'month', ['billedCost', 'effectiveCost']),
    group(['SkuId', 'SkuMeter', 'PricingUnit'], 'day', ['effectiveCost', 'pricingQuantity']),
    group(details, 'day', []),
    currentPlan(db),
    listOpportunities(db),
    findNote(db, id),
  ])
  const skus = [...new Set(meters.result.flatMap(({ values }) => values.SkuId ?? []))]
  const { result: meanings } = await seen.ask('meanings', skus)
  const days = facts.result.map(g => g.start!).sort()
  if (!days.length) throw unknownResource(id)
  const firstDay = days[0]!
  const lastDay = days.at(-1)!
  const newest = facts.result.filter(g => g.start === lastDay)
  const value = (name: (typeof FACTS)[number]) =>
    newest.map(g => g.values[name]).find(v => v !== null && v !== undefined) ??
    facts.result.map(g => g.values[name]).find(v => v !== null && v !== undefined) ??
    null
  const dataTo = (await reportedTo(seen, { ...ALWAYS, keep })) ?? data.lastDay!

  const tags = tagsOver(tagged.result, tagKeys)
  const named = { id, name: '', provider: '', region: '', subAccountName: '', tags: {} } // its charges say the rest
  const { result: owners } = await seen.ask('whose', { resources: [named], day: lastDay })
  const owner = new Map(Object.entries(owners)).get(id)
  const rule = owner && saved?.plan.rules.find(own => own.id === owner.rule)
  const centre = owner && (saved?.plan.centres.find(c => c.id === owner.target) ?? saved?.plan.pools.find(p => p.id === owner.target))
  const { result: ofProvider } = await seen.ask('group', {
    ...ALWAYS,
    start: firstDay,
    end: addDays(lastDay, 1),
    keep: { ProviderName: [value('ProviderName')] },
    splitBy: [],
    grain: 'day',
    measures: [],
  })
  const runs = runTimes(hoursOf(meters.result), new Set(ofProvider.map(g => g.start!)))
  const own = asker.bound && !owner ? [] : found.filter(row => row.opportunity.body.resourceId === id)

  return {
    id,
    names: [...new Set(facts.result.map(g => g.values.ResourceName).filter((name): name is string => !!name))],
    type: value('ResourceType'),
    regionId: value('RegionId'),
    regionName: value('RegionName'),
    provider: value('ProviderName'),
    subAccount: value('SubAccountName'),
    service: value('ServiceName'),
    container: value(CONTAINER_COLUMN),
    firstDay,
    lastDay,
    stillThere: lastDay >= dataTo,
    months: months.result
      .map(g => ({ start: g.start!, currency: g.currency, billed: scaledText(g.amounts[0]!), effective: scaledText(g.amounts[1]!) }))
      .sort((a, b) => (a.start < b.start ? -1 : 1)),
    meters: metersOf(meters.result, meanings),
    tags,
    details: detailsOf(priced.result, details),
    events: eventsOf({ firstDay, lastDay, gone: lastDay < dataTo, tags, priced: priced.result, details, runs }),
    createdBy: await relatedTo(seen, value(CREATED_BY_COLUMN)),
    protects: await relatedTo(seen, value(PROTECTS_COLUMN)),
    runs,
    created: data.found.includes(CREATED_BY_COLUMN) ? await naming(seen, CREATED_BY_COLUMN, id) : [],
    protectedBy: data.found.includes(PROTECTS_COLUMN) ? await naming(seen, PROTECTS_COLUMN, id) : [],
    commitments: [...new Set(facts.result.map(g => g.values.CommitmentDiscountName).filter((name): name is string => !!name))],
    centre:
      rule && centre
        ? { name: centre.name, rule: ruleWords(rule), owner: 'owner' in centre && centre.owner ? people.nameOf(centre.owner) : null }
        : null,
    opportunities: own.map(({ opportunity }) => ({
      id: opportunity.id,
      what: opportunity.body.title,
      state: opportunity.state,
      monthly: opportunity.body.monthlySaving,
      currency: opportunity.body.currency,
    })),
    actions: own.flatMap(({ action }) => (action?.steps ?? []).map(step => ({ ...step, who: people.nameOf(step.who) }))),
    note: note ?? null,
    revision: facts.revision,
  }
}

const unknownResource = (id: string) =>
  notFound(
    'resource',
    `No charge of all that is loaded names the resource «${id}». It may be charged under another id: look for a part of its name.`,
  )

/** @throws Problem when no charge that whoever asks may see names a resource. */
export async function mustSee({ seen }: Pick<Work, 'seen'>, id: string): Promise<void> {
  const { result: charges } = await seen.ask('count', { ...ALWAYS, keep: { ResourceId: [id] } })
  if (!charges) throw unknownResource(id)
}

type Groups = { values: Record<string, string | null>; start: string | null; amounts: bigint[] }[]

/** Each tag's values with where they come from and between which days they were seen. */
function tagsOver(groups: Groups, keys: string[]): ResourceView['tags'] {
  const seen = new Map<string, ResourceView['tags'][number]>()
  for (const { values, start } of groups) {
    for (const key of keys) {
      const value = values[`Tags/${key}`]
      const from = values[`TagsFrom/${key}`] as 'own' | 'container' | 'account' | null
      if (!value || !from) continue
      const id = `${key}\u0000${value}\u0000${from}`
      const known = seen.get(id)
      if (!known) seen.set(id, { key, value, from, firstDay: start!, lastDay: start! })
      else {
        if (start! < known.firstDay) known.firstDay = start!
        if (start! > known.lastDay) known.lastDay = start!
      }
    }
  }
  return [...seen.values()].sort((a, b) => (a.key === b.key ? (a.firstDay < b.firstDay ? -1 : 1) : a.key < b.key ? -1 : 1))
}

function metersOf(groups: Groups, meanings: Record<string, SkuMeaning>): ResourceView['meters'] {
  const found = new Map<string, ResourceView['meters'][number]>()
  for (const { values, start, amounts } of groups) {
    const key = JSON.stringify([values.SkuId, values.SkuMeter, values.PricingUnit])
    const meaning = values.SkuId && Object.hasOwn(meanings, values.SkuId) ? meanings[values.SkuId] : undefined
    const meter = found.get(key) ?? {
      skuId: values.SkuId ?? null,
      meter: values.SkuMeter ?? null,
      words: meaning?.words ?? null,
      charged: meaning?.charged ?? null,
      unit: values.PricingUnit ?? null,
      days: [],
    }
    found.set(key, meter)
    meter.days.push({ start: start!, amount: scaledText(amounts[0]!), quantity: scaledText(amounts[1]!) })
  }
  for (const meter of found.values()) meter.days.sort((a, b) => (a.start < b.start ? -1 : 1))
  return [...found.values()]
}

function detailsOf(groups: Groups, names: string[]): Record<string, string> {
  const newest = [...groups].sort((a, b) => (a.start! < b.start! ? 1 : -1))
  return Object.fromEntries(
    names.flatMap(name => {
      const value = newest.map(g => g.values[name]).find(v => v)
      return value ? [[name, value]] : []
    }),
  )
}

const SIZE = 'SkuPriceDetails/InstanceType'

type Known = {
  firstDay: string
  lastDay: string
  gone: boolean
  tags: ResourceView['tags']
  priced: Groups
  details: string[]
  runs: RunTimes | null
}

function eventsOf({ firstDay, lastDay, gone, tags, priced, details, runs }: Known): ResourceView['events'] {
  const events: ResourceView['events'] = [{ day: firstDay, what: 'charged for the first time' }]
  for (const { from, to } of runs?.still ?? []) {
    events.push(
      { day: from, what: 'stopped: no running hours from this day on' },
      { day: addDays(to, 1), what: `started again after ${daysBetween(from, to) + 1} ${from === to ? 'day' : 'days'}` },
    )
  }
  for (const tag of tags) {
    if (tag.from !== 'own') continue
    const before = tags.find(t => t.key === tag.key && t.from === 'own' && t.lastDay < tag.firstDay)
    if (tag.firstDay > firstDay)
      events.push({
        day: tag.firstDay,
        what: before ? `tag ${tag.key} changed from ${before.value} to ${tag.value}` : `tag ${tag.key} came: ${tag.value}`,
      })
  }
  if (details.includes(SIZE)) {
    let size: string | null = null
    for (const { values, start } of [...priced].sort((a, b) => (a.start! < b.start! ? -1 : 1))) {
      const own = values[SIZE] ?? null
      if (own && size && own !== size) events.push({ day: start!, what: `size changed from ${size} to ${own}` })
      size = own ?? size
    }
  }
  if (gone) events.push({ day: lastDay, what: 'charged for the last time' })
  return events.sort((a, b) => (a.day < b.day ? -1 : 1))
}

type Related = NonNullable<ResourceView['createdBy']>

async function relatedTo(seen: ChargesSeen, id: string | null): Promise<Related | null> {
  if (!id) return null
  const { result } = await seen.ask('group', {
    ...ALWAYS,
    keep: { ResourceId: [id] },
    splitBy: ['ResourceName', 'ResourceType'],
    grain: null,
    measures: ['effectiveCost'],
  })
  return {
    id,
    name: result[0]?.values.ResourceName ?? null,
    type: result[0]?.values.ResourceType ?? null,
    amounts: sumByCurrency(result.map(g => ({ currency: g.currency, amount: g.amounts[0]! }))),
  }
}

/** Resources that name this one in a column of their own. */
async function naming(seen: ChargesSeen, column: string, id: string): Promise<Related[]> {
  const { result } = await seen.ask('group', {
    ...ALWAYS,
    keep: { [column]: [id] },
    splitBy: ['ResourceId', 'ResourceName', 'ResourceType'],
    grain: null,
    measures: ['effectiveCost'],
  })
  return result.flatMap(g =>
    g.values.ResourceId
      ? [
          {
            id: g.values.ResourceId,
            name: g.values.ResourceName ?? null,
            type: g.values.ResourceType ?? null,
            amounts: sumByCurrency([{ currency: g.currency, amount: g.amounts[0]! }]),
          },
        ]
      : [],
  )
}

const HOURS = /^hours?$/i

/** Charged hours by day, of the meter that has most where there are several by the hour. */
function hoursOf(groups: Groups): Map<string, number> {
  const found = new Map<string, number>()
  for (const { values, start, amounts } of groups) {
    if (HOURS.test(values.PricingUnit ?? '')) found.set(start!, Math.max(found.get(start!) ?? 0, Number(amounts[1]!) / 1e15))
  }
  return found
}
