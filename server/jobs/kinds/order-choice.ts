import { z } from 'zod'
import { findOrder, noteChosen } from '../../stores/standing-orders'
import { Problem } from '../../problems/problem'
import { TagConnections, tagResource, tagWords } from '../../use-cases/standing-orders/tag-resource'
import type { JobKind } from './kind'

const argument = z.object({
  order: z.string(),
  resourceId: z.string(),
  name: z.string(),
  provider: z.string(),
  key: z.string(),
  value: z.string(),
})

/** Sets the tag that a person has chosen for what an order could not tell for certain. */
export const orderChoice: JobKind<z.infer<typeof argument>> = {
  kind: 'order-choice',
  does: 'Set a tag that somebody has chosen',
  argument,
  stops: false,
  once: true,
  async describe({ order, name }, db) {
    return { about: `${name}, for ${(await findOrder(db, order))?.definition.name ?? 'an order that is gone'}`, page: '/savings/orders' }
  },
  async run(tag, { services, who, about, signal }) {
    const { db } = services.database
    const { state, said } = await tagResource(db, new TagConnections(db), tag, who, about, signal)
    if (state !== 'done' && state !== 'done before')
      throw new Problem('conflict', 'not-tagged', 'The tag was not set', `${tag.name}: ${said ?? state}.`)
    await noteChosen(db, tag.order, tag.resourceId, tagWords(tag.key, tag.value), `chosen by ${services.people.nameOf(who)}`)
    return { said: `${tag.key} set to «${tag.value}»`, result: undefined }
  },
  findOut: async () => 'The process ended over it: choose again; what became of it is found out first.',
}
