import type { JumpFound } from '../../../shared/contracts/jump'
import { operations } from '../../http/operations'
import { route } from '../../http/route'
import { listEstimates } from '../../stores/estimates'
import { currentPlan } from '../../stores/organisation'
import { listSentences } from '../../stores/sentences'

const MOST_OF_A_KIND = 8

/**
 * Anything with a place of its own whose name or id holds a text: saved sentences, accounts, services, resources, SKUs, cost centres,
 * estimates.
 */
export default route(operations.spend.jump, async ({ database, cube, who, query }): Promise<{ found: JumpFound[] }> => {
  const { q } = query
  const sought = q.toLowerCase()
  const holds = (...texts: string[]) => texts.some(text => text.toLowerCase().includes(sought))
  const [{ result: places }, sentences, plan, estimates] = await Promise.all([
    cube.ask('find', q),
    listSentences(database.db, who),
    currentPlan(database.db),
    listEstimates(database.db),
  ])
  return {
    found: [
      ...sentences
        .filter(s => holds(s.name, s.folder))
        .slice(0, MOST_OF_A_KIND)
        .map((s): JumpFound => ({ kind: 'sentence', id: s.id, name: s.name, beside: s.folder || null, query: s.body.query })),
      ...places.map((place): JumpFound => ({
        kind: 'value',
        id: place.value,
        name: place.name,
        beside: place.beside,
        dimension: place.dimension,
      })),
      ...(plan?.plan.centres ?? [])
        .filter(c => holds(c.name, c.id))
        .slice(0, MOST_OF_A_KIND)
        .map((c): JumpFound => ({ kind: 'cost centre', id: c.id, name: c.name, beside: null })),
      ...estimates
        .map(e => ({ id: e.id, name: e.name ?? e.title }))
        .filter(e => holds(e.name, e.id))
        .slice(0, MOST_OF_A_KIND)
        .map((e): JumpFound => ({ kind: 'estimate', id: e.id, name: e.name, beside: null })),
    ],
  }
})
