import type { Finds } from '../../../core/standing-order/definition'
import type { FoundResource } from '../../../core/standing-order/found'
import { addDays, type Day } from '../../../core/time/day'
import { centresFor } from '../centres'
import { foundSavings, isOpen, type SavingsWork } from '../savings-found'
import { makingsOf } from '../../stores/observed'
import { ALWAYS } from '../resource-facts'
import { byName, costsOf, DAYS_OF_COST } from './found-resources'

/** Savings that an order looks for, as resources: those that are open, of its kinds, on resources that meet its conditions. */
export async function findSavings(
  work: SavingsWork,
  { detectors, conditions }: Extract<Finds, { what: 'savings' }>,
  today: Day,
): Promise<FoundResource[]> {
  const open = (await foundSavings(work)).filter(one => isOpen(one) && detectors.includes(one.body.detector))
  const resources = open.map(({ body: { resourceId: id, resourceName: name, provider, region, subAccountName, tags } }) => ({
    ...{ id, name, provider, region, subAccountName, tags },
  }))
  const { result: meeting } = await work.seen.ask('meeting', { conditions, since: today, day: addDays(today, -1), resources })
  const meets = new Set(meeting)
  const makings = await makingsOf(work.database.db, meeting)
  const [ofMonth, soFar] = await Promise.all([
    costsOf(work.seen, meeting, addDays(today, -DAYS_OF_COST), today),
    costsOf(work.seen, meeting, ALWAYS.start, ALWAYS.end),
  ])
  const people = new Map((await centresFor(work.database.db, { bound: null })).map(({ id, owner }) => [id, owner]))
  return open
    .filter(({ body }) => meets.has(body.resourceId))
    .map(({ body, owner }) => ({
      ...{ resourceId: body.resourceId, name: body.resourceName, type: null, provider: body.provider, region: body.region },
      ...{ subAccountName: body.subAccountName, firstDay: null, isOlder: false },
      costOfMonth: ofMonth.get(body.resourceId) ?? [],
      costSoFar: soFar.get(body.resourceId) ?? [],
      makings: makings.get(body.resourceId) ?? [],
      owner: (owner && people.get(owner.target)) ?? null,
      saving: { id: body.id, title: body.title, monthly: body.monthlySaving, currency: body.currency },
    }))
    .sort(byName)
}
