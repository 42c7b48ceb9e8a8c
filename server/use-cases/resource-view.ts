import { scaledText } from '../../core/money/scaled'
import { CONTAINER_COLUMN, CREATED_BY_COLUMN } from '../../core/spend/dimension'
import { runTimes } from '../../core/spend/run-times'
import { addDays } from '../../core/time/day'
import type { ResourceView } from '../../shared/contracts/resources'
import { ruleWords } from '../../shared/words/rules'
import { notFound } from '../problems/problem'
import type { Work } from './work'
import { currentPlan } from '../stores/organisation'
import { findNote } from '../stores/resource-notes'
import { listOpportunities } from '../stores/savings'
import { orderStepsOn } from '../stores/standing-orders'
import { undoneStepsOn } from '../stores/undone'
import { reportedTo } from '../charges/delivered-days'
import { ALWAYS, PROTECTS_COLUMN, tagsOver, hoursOf, metersOf, detailsOf, eventsOf } from './resource-facts'
import { relatedTo, naming } from './related-resources'

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
  PROTECTS_COLUMN,
  'CommitmentDiscountName',
] as const

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
  const [facts, tagged, months, meters, priced, saved, found, note, ordered, undone] = await Promise.all([
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
    orderStepsOn(db, id),
    undoneStepsOn(db, id),
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
  const isTheirs = !asker.bound || owner
  const own = isTheirs ? found.filter(row => row.opportunity.body.resourceId === id) : []
  const steps = [...own.flatMap(({ action }) => action?.steps ?? []), ...(isTheirs ? [...ordered, ...undone] : [])]

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
    actions: steps.map(step => ({ ...step, who: people.nameOf(step.who) })).sort((a, b) => (a.at < b.at ? -1 : 1)),
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
