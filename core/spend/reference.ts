import type { Lookup } from './lookup'

/**
 * What is known beside the charges and makes dimensions of them: kept with the data, changed without loading anything again, and reaching
 * back over all that is loaded.
 */
export type SpendReference = {
  /** Spellings that count as another one, by dimension: `{ 'Tags/team': { 'booking-team': 'booking' } }`. */
  aliases: Record<string, Record<string, string>>
  /** Where a sub account stands in the account tree (names from the top), and the tags that all within it inherit; by sub account id. */
  accounts: Record<string, { path: string[]; tags: Record<string, string> }>
  /** Tags that everything in a container inherits; by path. The nearest container wins. */
  containerTags: Record<string, Record<string, string>>
  /** What SKUs are charged for, from the rate cards; by SKU id. */
  charged: Record<string, 'existing' | 'use'>
  /** Tables that say something of another dimension's values; by name. */
  lookups: Record<string, Lookup>
}

export const emptyReference: SpendReference = { aliases: {}, accounts: {}, containerTags: {}, charged: {}, lookups: {} }
