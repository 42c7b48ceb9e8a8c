import { createHash } from 'node:crypto'
import { dictionaryNames, type DictionaryName } from '../../core/focus/star'

/** A combination of values that was not known: its hash, and the values in the dictionary's order. */
export type NewEntry = { digest: string; values: (string | null)[] }
export type KnownEntries = Record<DictionaryName, { id: number; digest: string }[]>
export type NewEntries = Partial<Record<DictionaryName, NewEntry[]>>
/** The ids that the database gave, in the order of the entries. */
export type GivenIds = Partial<Record<DictionaryName, number[]>>

/** Between processes and threads entries and ids go as JSON texts: as objects each that passes them on would take them apart. */
export type KnownTexts = Record<DictionaryName, string>
export type EntryTexts = Partial<Record<DictionaryName, string>>
export type IdTexts = Partial<Record<DictionaryName, string>>

const mapped = <A, B>(of: Partial<Record<DictionaryName, A>>, change: (one: A) => B): Partial<Record<DictionaryName, B>> =>
  Object.fromEntries(Object.entries(of).map(([name, one]) => [name, change(one)]))

/** Lists of the digest and the values of each. */
export const entryTexts = (entries: NewEntries): EntryTexts =>
  mapped(entries, list => JSON.stringify(list.map(({ digest, values }) => [digest, ...values])))
export const idsFrom = (texts: IdTexts): GivenIds => mapped(texts, text => JSON.parse(text) as number[])
export const knownFrom = (texts: KnownTexts): KnownEntries =>
  mapped(texts, text => (JSON.parse(text) as [number, string][]).map(([id, digest]) => ({ id, digest }))) as KnownEntries

/** The hash by which a combination of values is told. */
export const digestOf = (values: readonly (string | null)[]): string =>
  createHash('sha256').update(JSON.stringify(values)).digest('base64url')

/**
 * Tells combinations of values apart while a delivery is read. One that the database is known to have goes by its id there; another gets a
 * number of this thread's own, until the database has given it an id: other processes may have made the same entry meanwhile.
 */
export class EntryIds {
  #known = new Map<DictionaryName, Map<string, number>>()
  /** The first number of a dictionary that is not an id of the database. */
  #first = new Map<DictionaryName, number>()
  #given = new Map<DictionaryName, number[]>()
  #count = new Map<DictionaryName, number>()
  #new: NewEntries = {}

  constructor(known: KnownEntries) {
    for (const name of dictionaryNames) {
      this.#known.set(name, new Map(known[name].map(({ id, digest }) => [digest, id])))
      this.#first.set(name, known[name].reduce((max, { id }) => Math.max(max, id), 0) + 1)
      this.#given.set(name, [])
      this.#count.set(name, 0)
    }
  }

  /** The number of a combination of values in this thread. */
  number(name: DictionaryName, values: (string | null)[]): number {
    const digest = digestOf(values)
    const known = this.#known.get(name)!
    const found = known.get(digest)
    if (found !== undefined) return found
    const count = this.#count.get(name)!
    const number = this.#first.get(name)! + count
    this.#count.set(name, count + 1)
    known.set(digest, number)
    ;(this.#new[name] ??= []).push({ digest, values })
    return number
  }

  /**
   * Entries that were met since they were last taken; those of a load that was refused come with the next. Whoever takes them gives their
   * ids.
   */
  takeNew(): NewEntries {
    const taken = this.#new
    this.#new = {}
    return taken
  }

  /** Takes the ids of entries in the order in which they were taken. */
  give(ids: GivenIds): void {
    for (const name of dictionaryNames) {
      const given = this.#given.get(name)!
      for (const id of ids[name] ?? []) given.push(id)
    }
  }

  /** The database's id for a number of this thread, once it was given. */
  id(name: DictionaryName, number: number): number {
    const first = this.#first.get(name)!
    if (number < first) return number
    const id = this.#given.get(name)![number - first]
    if (id === undefined) throw new Error(`an entry of ${name} has no id yet`)
    return id
  }
}
