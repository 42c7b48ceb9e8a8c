import { z } from 'zod'
import { ignoredParts, readView, writeView, type AddressQuery, type WrittenQuery } from '../../core/spend/view-address'
import type { SpendView } from '../../core/spend/view'
import { savedSentenceBody } from '../../shared/contracts/spend-settings'
import { client } from './client'

/** An address is no longer than this: proxies and mail programs cut longer ones. */
const LONGEST = 1800

/** The address of a view: its parts, or the short id under which the server keeps them where they are too many. */
export async function addressOf(view: SpendView): Promise<WrittenQuery> {
  const query = writeView(view)
  if (JSON.stringify(query).length <= LONGEST) return query
  const { id } = await client.send('POST', 'sentences/long', { query }, z.object({ id: z.string() }))
  return { long: id }
}

/** The view of an address, and what in it could not be read. */
export async function viewOf(query: AddressQuery): Promise<{ view: SpendView; ignored: string[] }> {
  const { long, ...parts } = query
  const kept = typeof long === 'string' ? (await client.get(`sentences/long/${encodeURIComponent(long)}`, savedSentenceBody)).query : {}
  const whole = { ...kept, ...parts }
  return { view: readView(whole), ignored: ignoredParts(whole) }
}
