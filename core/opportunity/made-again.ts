import type { Decimal } from '../money/decimal'
import { addDays, type Day } from '../time/day'

/** Something that is gone by what was done: from which day on, and what it was charged under. */
export type Gone = { id: string; name: string; provider: string; subAccount: string; currency: string; skus: readonly string[]; day: Day }

/** A resource that was charged for the first time since: from which day on, and its effective cost since, in one currency. */
export type Newcomer = {
  resourceId: string
  name: string
  provider: string
  subAccount: string
  skus: readonly string[]
  since: Day
  currency: string
  amount: Decimal
}

/** What comes so many days later is no answer to what is gone any more. Common practice, no source. */
export const AGAIN_WITHIN_DAYS = 30

/**
 * What may have come in the place of what is gone: of the same provider, charged for the first time within `AGAIN_WITHIN_DAYS` days from
 * then on, either under the same name, wherever it runs now, or under the same SKU in the same sub account. Each newcomer stands with one
 * that is gone: first by name, then the one that was gone first.
 * @returns newcomers by the id of what is gone.
 */
export function madeAgain(gone: readonly Gone[], newcomers: readonly Newcomer[]): Map<string, Newcomer[]> {
  const inTurn = [...gone].sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : a.id < b.id ? -1 : 1))
  const again = new Map<string, Newcomer[]>()
  const replaced = new Set<string>()
  for (const one of [...newcomers].sort((a, b) =>
    a.since < b.since ? -1 : a.since > b.since ? 1 : a.resourceId < b.resourceId ? -1 : 1,
  )) {
    const possible = inTurn.filter(
      ({ provider, currency, day }) =>
        provider === one.provider && currency === one.currency && one.since >= day && one.since <= addDays(day, AGAIN_WITHIN_DAYS),
    )
    const found =
      possible.find(({ name }) => name.toLowerCase() === one.name.toLowerCase()) ??
      // one of its kind answers one that is gone, not all of them
      possible.find(
        ({ id, subAccount, skus }) => !replaced.has(id) && subAccount === one.subAccount && skus.some(sku => one.skus.includes(sku)),
      )
    if (!found) continue
    replaced.add(found.id)
    again.set(found.id, [...(again.get(found.id) ?? []), one])
  }
  return again
}
