import { createHash } from 'node:crypto'
import { dictionaryNames, type DictionaryName } from '../../core/focus/star'

/** A new combination of values: its id, its hash, the values in the dictionary's order. */
export type NewEntry = { id: number; digest: string; values: (string | null)[] }
export type KnownEntries = Record<DictionaryName, { id: number; digest: string }[]>
export type NewEntries = Partial<Record<DictionaryName, NewEntry[]>>

/**
 * Gives each combination of values its dictionary id, the database's where it has one. Ids are handed out here alone: one load runs at a
 * time, and what it made stays known for the next. Whoever takes the new entries has to put every one of them into the database.
 */
export class EntryIds {
  #known = new Map<DictionaryName, Map<string, number>>()
  #next = new Map<DictionaryName, number>()
  #new: NewEntries = {}

  constructor(known: KnownEntries) {
    for (const name of dictionaryNames) {
      this.#known.set(name, new Map(known[name].map(({ id, digest }) => [digest, id])))
      this.#next.set(name, known[name].reduce((max, { id }) => Math.max(max, id), 0) + 1)
    }
  }

  id(name: DictionaryName, values: (string | null)[]): number {
    const digest = createHash('sha256').update(JSON.stringify(values)).digest('base64url')
    const known = this.#known.get(name)!
    const found = known.get(digest)
    if (found !== undefined) return found
    const id = this.#next.get(name)!
    this.#next.set(name, id + 1)
    known.set(digest, id)
    ;(this.#new[name] ??= []).push({ id, digest, values })
    return id
  }

  /** Entries that were made since they were last taken; those of a load that was refused come with the next. */
  takeNew(): NewEntries {
    const taken = this.#new
    this.#new = {}
    return taken
  }
}
