import type { z } from 'zod'
import { Decimal, decimalText } from '../../core/money/decimal'
import type { CostOtherwise, Way } from '../../core/opportunity/otherwise/cost-otherwise'
import type { otherwiseAsked, OtherwiseChoice, OtherwiseView, WayView } from '../../shared/contracts/savings-own'
import { conflict } from '../problems/problem'
import { choicesUnder, dropChoices, keepChoices } from '../stores/own-finds'
import { currentPlan } from '../stores/organisation'
import { checkScope } from './check-scope'
import { presentCards, type SavingsWork } from './savings-found'

type Asked = z.infer<typeof otherwiseAsked>

/** What things that are charged for would cost otherwise, of what is for whoever asks. */
export async function otherwise(work: SavingsWork, asked: Asked): Promise<OtherwiseView> {
  const { skus, more, found } = await costFound(work, asked)
  if (!found) return { skus, more, found: null }
  const chosen = await choicesUnder(work.database.db, found.provider, found.sku)
  const owners = await ownersOf(work, found)
  const { ids, ...own } = found
  return { skus, more, found: { ...own, ways: found.ways.map(way => wayView(way, ids, chosen, owners)) } }
}

async function costFound({ seen, database }: SavingsWork, { sku, way, keep, leaveOut, conditions }: Asked) {
  const scope = { keep, leaveOut, conditions }
  checkScope(scope)
  return (await seen.inSlices('otherwise', { cards: await presentCards(seen, database.db), scope, sku, way })).read()
}

/** What a way saves over all that it can be had for; nothing is said of one whose cost is not whole. */
const savingOf = ({ now, then }: { now: string; then: string | null }, isWhole: boolean) =>
  then !== null && isWhole ? decimalText(new Decimal(now).minus(then)) : null

function wayView(
  { each, ...way }: Way,
  ids: readonly string[],
  chosen: ReadonlyMap<string, string>,
  owners: ReadonlyMap<string, string>,
): WayView {
  const saving = savingOf(way, way.resources > 0 && !way.lacks.length)
  return {
    ...way,
    saving,
    share: saving === null ? null : new Decimal(way.then).div(way.now).toNumber(),
    chosen: ids.filter(id => chosen.get(id) === way.key).length,
    each:
      each?.map(one => ({
        ...one,
        saving: savingOf(one, !one.lacks.length),
        owner: owners.get(one.resourceId) ?? null,
        isChosen: chosen.get(one.resourceId) === way.key,
      })) ?? null,
  }
}

/** Whose the resources of the opened way are, by the name of the person. */
async function ownersOf({ seen, database, people }: SavingsWork, { provider, ways }: CostOtherwise): Promise<Map<string, string>> {
  const each = ways.find(way => way.each)?.each ?? []
  if (!each.length) return new Map()
  const { result: facts } = await seen.ask('facts', undefined)
  const resources = each.map(({ resourceId: id, resourceName: name, region, subAccountName }) => ({
    ...{ id, name, provider, region, subAccountName, tags: {} },
  }))
  const [{ result: owners }, saved] = await Promise.all([seen.ask('whose', { day: facts.lastDay!, resources }), currentPlan(database.db)])
  const personOf = new Map(saved?.plan.centres.flatMap(({ id, owner }) => (owner ? [[id, people.nameOf(owner)] as const] : [])))
  const found = Object.entries(owners).map(([id, owner]) => [id, owner ? personOf.get(owner.target) : undefined] as const)
  return new Map(found.flatMap(([id, name]) => (name === undefined ? [] : [[id, name] as const])))
}

/** Chooses a way for some resources, or takes it back; all or none. @throws Problem where one cannot be had so, or saves nothing so. */
export async function chooseOtherwise(work: SavingsWork, { resources, isChosen, ...asked }: OtherwiseChoice): Promise<OtherwiseView> {
  const { provider, sku } = asked.sku
  const { found } = await costFound(work, asked)
  const each = new Map((found?.ways.find(({ key }) => key === asked.way)?.each ?? []).map(one => [one.resourceId, one]))
  const theirs = new Set([...(found?.ids ?? []), ...(found?.left.map(({ resourceId }) => resourceId) ?? [])])
  const wrong = resources.flatMap(id => {
    // what was chosen is taken back whether or not it is offered any more; whoever sees all may also where nothing is charged any more
    if (!isChosen) return theirs.has(id) || work.asker.bound === null ? [] : [`${id}: it is not charged under that here`]
    const one = each.get(id)
    if (!one) return [`${id}: nothing of that is charged for it here now`]
    if (one.why !== null) return [`${one.resourceName}: ${one.why}`]
    if (one.lacks.length) return [`${one.resourceName}: nobody knows ${one.lacks.join('; ')}`]
    return new Decimal(one.then!).gte(one.now) ? [`${one.resourceName}: it would not cost less`] : []
  })
  if (wrong.length) throw conflict('Nothing was chosen', `${wrong.slice(0, MOST_NAMED).join('. ')}. Look at it again and choose anew.`)
  const { db } = work.database
  if (isChosen)
    await keepChoices(
      db,
      resources.map(resourceId => ({ provider, resourceId, sku, key: asked.way })),
      work.asker.id,
    )
  else await dropChoices(db, { provider, sku }, resources)
  return otherwise(work, asked)
}

const MOST_NAMED = 5
