import { instructionWords, type Instruction } from '../../../core/opportunity/instruction'
import { capabilityOf, connectorThatCan } from '../../connectors/connect'
import type { Condition, Connector } from '../../connectors/connector'
import type { Db } from '../../db/database'
import { deedFor, findDeed, noteDeed } from '../../stores/standing-orders'
import { whyNotTo } from '../as-it-stands'
import { patiently } from '../patiently'
import { attempt, settle, wasSent, type About } from '../tell-outside'
import { outcomeOf, type Outcome } from './outcome'

/** A tag that an order sets on a resource. */
export type TagToSet = { order: string; resourceId: string; name: string; key: string; value: string }

/** What setting a tag is kept as. */
export const tagWords = (key: string, value: string) => instructionWords({ type: '', deed: 'tag', key, value })

/** The connections that tags are set through, by provider: each is looked for once. */
export class TagConnections {
  readonly #found = new Map<string, Promise<Connector>>()
  readonly #tags = new Map<string, Promise<boolean>>()

  constructor(private readonly db: Db) {}

  /** @throws Problem where there is none. */
  of(provider: string): Promise<Connector> {
    const known = this.#found.get(provider) ?? connectorThatCan(this.db, ['inventory', 'actions'], provider)
    this.#found.set(provider, known)
    return known
  }

  /** Why a tag cannot be set on a resource as it is at this moment; null where it can. */
  async whyNot(provider: string, resourceId: string, key: string): Promise<{ why: string | null; condition: Condition | null }> {
    const connector = await this.of(provider)
    const condition = await capabilityOf(connector, 'inventory').condition(resourceId)
    const no = (why: string | null) => ({ why, condition })
    if (!condition) return no('it is not there any more')
    const locked = whyNotTo({ type: condition.type ?? '', deed: 'tag', key, value: '' }, condition)
    if (locked) return no(locked)
    if (Object.hasOwn(condition.tags, key)) return no(`it has the tag ${key} already: «${condition.tags[key]}»`)
    if (condition.type === null) return no(`${connector.name} does not say what it is`)
    return no((await this.#canTag(connector, condition.type)) ? null : `${connector.name} sets no tags on a ${condition.type}`)
  }

  #canTag(connector: Connector, type: string): Promise<boolean> {
    const key = JSON.stringify([connector.name, type])
    const known =
      this.#tags.get(key) ??
      capabilityOf(connector, 'actions')
        .of(type)
        .then(deeds => deeds.includes('tag'))
    this.#tags.set(key, known)
    return known
  }
}

/**
 * Sets a tag, once for an order: what was done before is not done again, and what became of a try that nobody knows of is found out first.
 * Every try looks anew whether the resource is there, is not locked and has no such tag.
 */
export async function tagResource(
  db: Db,
  connections: TagConnections,
  { provider, ...tag }: TagToSet & { provider: string },
  who: string,
  about: About,
  signal: AbortSignal,
): Promise<Outcome> {
  const { order, resourceId, name, key, value } = tag
  const plain = { deed: 'tag', key, value } as const
  const row = await deedFor(db, order, resourceId, tagWords(key, value))
  if (row.state === 'done') return { state: 'done before', said: row.steps.at(-1)?.outcome ?? null }
  return outcomeOf(async () => {
    const connector = await connections.of(provider)
    const { condition, why } = await connections.whyNot(provider, resourceId, key)
    const instruction: Instruction = { type: condition?.type ?? '', ...plain }
    const deed = {
      ...{ connector, instruction, resourceId, resourceName: name, who },
      told: () => findDeed(db, row.id),
      note: (...[state, step, more]: Parameters<Parameters<typeof attempt>[0]['note']>) => noteDeed(db, row.id, state, step, more),
      whyNot: async () => (await connections.whyNot(provider, resourceId, key)).why,
      lapsedHelp: 'It is looked at again in the next run.',
    }
    if (wasSent(row.state) && (await settle(deed))) return undefined
    // what speaks against it is no failure, and is looked at again the next time
    if (why) return why
    await patiently(() => attempt(deed, about), signal)
    return undefined
  })
}
