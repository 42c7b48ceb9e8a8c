import { z } from 'zod'
import { ignoredParts, readSentence, writeSentence, type AddressQuery, type WrittenQuery } from '../../core/spend/sentence-address'
import type { Sentence } from '../../core/spend/sentence'
import { savedSentenceBody } from '../../shared/contracts/spend-settings'
import { client } from './client'

/** An address is no longer than this: proxies and mail programs cut longer ones. */
const LONGEST = 1800

/** The address of a sentence: its parts, or the short id under which the server keeps them where they are too many. */
export async function addressOf(sentence: Sentence): Promise<WrittenQuery> {
  const query = writeSentence(sentence)
  if (JSON.stringify(query).length <= LONGEST) return query
  const { id } = await client.send('POST', 'sentences/long', { query }, z.object({ id: z.string() }))
  return { long: id }
}

/** The sentence of an address, and what in it could not be read. */
export async function sentenceOf(query: AddressQuery): Promise<{ sentence: Sentence; ignored: string[] }> {
  const { long, ...parts } = query
  const kept = typeof long === 'string' ? (await client.get(`sentences/long/${encodeURIComponent(long)}`, savedSentenceBody)).query : {}
  const whole = { ...kept, ...parts }
  return { sentence: readSentence(whole), ignored: ignoredParts(whole) }
}
