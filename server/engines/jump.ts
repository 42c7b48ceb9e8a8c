import type { JumpFound } from '../../shared/contracts/jump'
import { centresFor } from '../use-cases/centres'
import { Estimates } from './estimates'
import { Sentences } from './sentences'
import type { EngineWork } from './engine-work'

const MOST_OF_A_KIND = 8

/**
 * Anything with a place of its own whose name or id holds a text: saved sentences, accounts, services, resources, SKUs, cost centres,
 * estimates.
 */
export async function jumpTo(work: EngineWork, q: string): Promise<{ found: JumpFound[] }> {
  const sought = q.toLowerCase()
  const holds = (...texts: string[]) => texts.some(text => text.toLowerCase().includes(sought))
  const [{ result: places }, { sentences }, centres, { estimates }] = await Promise.all([
    work.seen.ask('find', q),
    new Sentences(work).list(),
    centresFor(work.database.db, work.asker),
    new Estimates(work).list(),
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
      ...centres
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
}
