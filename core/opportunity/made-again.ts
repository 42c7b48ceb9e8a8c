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
  const inTurn = inOrder(gone, ({ day, id }) => `${day} ${id}`)
  const again = new Map<string, Newcomer[]>()
  const enter = (one: Newcomer, found: Gone | undefined): boolean => {
    if (found) again.set(found.id, [...(again.get(found.id) ?? []), one])
    return found !== undefined
  }
  const mayAnswer = (one: Newcomer) => (lost: Gone) =>
    lost.provider === one.provider &&
    lost.currency === one.currency &&
    one.since >= lost.day &&
    one.since <= addDays(lost.day, AGAIN_WITHIN_DAYS)
  const unnamed = inOrder(newcomers, ({ since, resourceId }) => `${since} ${resourceId}`).filter(one => {
    const possible = inTurn.filter(mayAnswer(one))
    return !enter(
      one,
      possible.find(({ name }) => name.toLowerCase() === one.name.toLowerCase()),
    )
  })
  for (const one of unnamed) {
    const alike = inTurn
      .filter(mayAnswer(one))
      .filter(lost => lost.subAccount === one.subAccount && lost.skus.some(sku => one.skus.includes(sku)))
    // one of its kind answers one that is gone, not all of them
    enter(
      one,
      alike.find(({ id }) => !again.has(id)),
    )
  }
  return again
}

const inOrder = <T>(list: readonly T[], keyOf: (one: T) => string): T[] => [...list].sort((a, b) => (keyOf(a) < keyOf(b) ? -1 : 1))
