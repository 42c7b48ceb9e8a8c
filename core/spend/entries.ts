import { dictionaryNames, type DictionaryName } from '../focus/star'
import { namedObject, namedObjects } from '../text/named'
import { columnPlace } from './dimension'
import { emptyReference, type SpendReference } from './reference'

type JsonDictionary = 'tagSet' | 'others' | 'price'
const jsonPlace: Record<JsonDictionary, number> = { tagSet: 0, others: 0, price: columnPlace('price', 'SkuPriceDetails') }
const nothing: Record<string, unknown> = namedObject()

/** What people have called things are names, whatever they are: `constructor` too. */
function named({ aliases, accounts, containerTags, charged, lookups }: SpendReference): SpendReference {
  return {
    aliases: namedObjects(aliases),
    accounts: namedObject(
      Object.fromEntries(Object.entries(accounts).map(([id, account]) => [id, { ...account, tags: namedObject(account.tags) }])),
    ),
    containerTags: namedObjects(containerTags),
    charged: namedObject(charged),
    lookups: namedObject(lookups),
  }
}

/** What charges are coded by: the entries of dictionaries, and what is known beside the charges. */
export class Entries {
  /** Entries by dictionary and id; ids are the database's. */
  readonly entries = Object.fromEntries(dictionaryNames.map(name => [name, []])) as unknown as Record<
    DictionaryName,
    ((string | null)[] | undefined)[]
  >
  reference = named(emptyReference)
  #parsed: Record<JsonDictionary, (Record<string, unknown> | undefined)[]> = { tagSet: [], others: [], price: [] }

  addEntry(dictionary: DictionaryName, id: number, values: (string | null)[]): void {
    this.entries[dictionary][id] = values
  }

  setReference(reference: SpendReference): void {
    this.reference = named(reference)
  }

  tags(id: number): Record<string, unknown> {
    return this.#json('tagSet', id)
  }

  /** The columns that have no place of their own. */
  others(id: number): Record<string, unknown> {
    return this.#json('others', id)
  }

  priceDetails(id: number): Record<string, unknown> {
    return this.#json('price', id)
  }

  #json(dictionary: JsonDictionary, id: number): Record<string, unknown> {
    const known = this.#parsed[dictionary][id]
    if (known) return known
    const text = this.entries[dictionary][id]?.[jsonPlace[dictionary]]
    const value = text ? namedObject(JSON.parse(text) as Record<string, unknown>) : nothing
    if (this.entries[dictionary][id]) this.#parsed[dictionary][id] = value
    return value
  }
}
