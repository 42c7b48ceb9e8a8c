import { createHash } from 'node:crypto'
import type { Charge } from '../../core/focus/check'
import { amountColumns, dictionaryNames, quantityColumns, type DictionaryName } from '../../core/focus/star'
import { scaledText } from '../../core/money/scaled'

/** A new combination of values: its id, its hash, the values in the dictionary's order. */
export type NewEntry = { id: number, digest: string, values: (string | null)[] }
export type KnownEntries = Record<DictionaryName, { id: number, digest: string }[]>
export type NewEntries = Partial<Record<DictionaryName, NewEntry[]>>

const SEPARATOR = '\u0001'

/** Turns charges into lines for COPY, giving each combination of values its dictionary id. Ids are handed out here: one load runs at a time. */
export class ChargeEncoder {
  #ids = new Map<DictionaryName, Map<string, number>>()
  #known = new Map<DictionaryName, Map<string, number>>()
  #next = new Map<DictionaryName, number>()
  #new: NewEntries = {}

  constructor(known: KnownEntries, readonly loadId: number) {
    for (const name of dictionaryNames) {
      this.#ids.set(name, new Map())
      this.#known.set(name, new Map(known[name].map(({ id, digest }) => [digest, id])))
      this.#next.set(name, known[name].reduce((max, { id }) => Math.max(max, id), 0) + 1)
    }
  }

  /** One line in COPY's text format. Every field is a number, a time or a currency: nothing in it needs escaping. */
  line(charge: Charge): string {
    const keys = dictionaryNames.map(name => this.#id(name, charge.entries[name]))
    const amounts = amountColumns.map(name => scaledText(charge.amounts[name]))
    const quantities = quantityColumns.map((name) => {
      const value = charge.quantities[name]
      return value === null ? '\\N' : scaledText(value)
    })
    return [this.loadId, charge.billingPeriodStart, charge.chargePeriodStart, charge.chargePeriodEnd, charge.billingCurrency, ...keys, ...amounts, ...quantities].join('\t')
  }

  /** Entries that the lines made so far need and the database has not yet. */
  takeNew(): NewEntries {
    const taken = this.#new
    this.#new = {}
    return taken
  }

  #id(name: DictionaryName, values: (string | null)[]): number {
    const key = values.join(SEPARATOR)
    const seen = this.#ids.get(name)!.get(key)
    if (seen !== undefined) return seen
    const digest = createHash('sha256').update(JSON.stringify(values)).digest('base64url')
    let id = this.#known.get(name)!.get(digest)
    if (id === undefined) {
      id = this.#next.get(name)!
      this.#next.set(name, id + 1);
      (this.#new[name] ??= []).push({ id, digest, values })
    }
    this.#ids.get(name)!.set(key, id)
    return id
  }
}
