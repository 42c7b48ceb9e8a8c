import { runsWithout, type DayRun } from '../time/day-runs'

/** What a delivery holds of one of its billing periods: since when and until when it goes, whose money, and on which days. */
export type Holding = {
  /** Instants, the end exclusive. */
  start: string
  end: string
  /** Billing accounts with their sub accounts; a charge of no sub account counts as one of the empty name. */
  accounts: ReadonlyMap<string, ReadonlySet<string>>
  /** Days on which charges start. */
  days: readonly DayRun[]
}

/** Billing periods of neighbouring months may reach into each other by time zones: up to so long they are not the same. */
const ZONES_MS = 48 * 3_600_000

/** Billing accounts that two holdings have for the same time; none when they are of different time or accounts. */
export function sharedAccounts(a: Holding, b: Holding): string[] {
  if (!isSameTime(a, b)) return []
  return [...a.accounts.keys()].filter(account => b.accounts.has(account)).sort()
}

/** Whether billing periods are of the same time: more than time zones can explain, or, of short ones, more than half of the shorter. */
function isSameTime(a: Holding, b: Holding): boolean {
  const [startA, endA, startB, endB] = [a.start, a.end, b.start, b.end].map(text => Date.parse(text)) as [number, number, number, number]
  const both = Math.min(endA, endB) - Math.max(startA, startB)
  return both > Math.min(ZONES_MS, Math.min(endA - startA, endB - startB) / 2)
}

/** Whether, in the billing accounts that both have, no sub account is in both: then their charges cannot be the same money. */
export function haveOtherSubAccounts(a: Holding, b: Holding): boolean {
  return sharedAccounts(a, b).every(account => {
    const theirs = b.accounts.get(account)!
    return [...a.accounts.get(account)!].every(own => !theirs.has(own))
  })
}

/** Days on which what goes has charges and what stays has none: they would stand empty. */
export const daysLeftEmpty = (goes: readonly Holding[], stays: readonly Holding[]): DayRun[] =>
  runsWithout(
    goes.flatMap(({ days }) => days),
    stays.flatMap(({ days }) => days),
  )
