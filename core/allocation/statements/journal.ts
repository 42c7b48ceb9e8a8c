import { minorUnit, roundScaled, scaled, scaledText, type Scaled } from '../../money/scaled'
import { inWholeUnits, largestOf } from '../../money/whole-units'
import type { MonthStatements } from './month-statements'

/** A line of a journal: an amount in whole minor units on one side; the other is empty. */
export type JournalLine = { account: string; name: string; currency: string; debit: string | null; credit: string | null }

/** The account that cloud cost is taken from when it is put on cost centres. */
export const CLEARING = { account: 'clearing', name: 'Cloud cost to be allocated' }

/** The account that the organisation's uplifts are credited to. */
export const UPLIFTS = { account: 'uplifts', name: 'Uplifts' }

/**
 * A month as a journal for the ledger, balanced in each currency: every cost centre, and what is unallocated, is debited with what it bears
 * (credited where that is below zero, left out where it is zero); the clearing account takes the other side. Amounts are cut to minor units
 * by largest remainders; their sum is the bill with adjustments, rounded half away from zero. What cost centres bear of uplifts, which are
 * in no bill, are lines of their own against an account of their own. (Double entry: common practice, no source.)
 * @param decimals of a currency's minor unit.
 */
export function journalOf({ statements, unallocated }: MonthStatements, decimals: (currency: string) => number): JournalLine[] {
  const bearers = [
    ...statements.map(({ centre, currency, toBear }) => ({ account: centre.code ?? centre.id, name: centre.name, currency, toBear })),
    ...unallocated.map(({ currency, toBear }) => ({ account: 'unallocated', name: 'Unallocated', currency, toBear })),
  ]
  return [...new Set(bearers.map(({ currency }) => currency))].sort().flatMap(currency => {
    const own = bearers.filter(one => one.currency === currency)
    const amounts = own.map(({ toBear }) => scaled(toBear))
    const { parts, rest } = inWholeUnits(amounts, minorUnit(decimals(currency)))
    const cut = parts.reduce((total, part) => total + part, 0n)
    parts[largestOf(amounts)]! += roundScaled(cut + rest, decimals(currency)) - cut
    const lines = own.map(({ account, name }, at) => line({ account, name }, currency, parts[at]!))
    const clearing = line(CLEARING, currency, -parts.reduce((total, part) => total + part, 0n))
    return [...lines, clearing, ...upliftEntries(statements.filter(one => one.currency === currency))].filter(
      ({ debit, credit }) => debit ?? credit,
    )
  })
}

/** Uplifts of one currency: each cost centre's, and their sum on the other side. They are in whole minor units as they are. */
function upliftEntries(statements: MonthStatements['statements']): JournalLine[] {
  const borne = statements.map(({ centre, currency, uplifts }) => ({
    ...{ account: centre.code ?? centre.id, name: `${centre.name}, uplifts`, currency },
    amount: uplifts.reduce((sum, { amount }) => sum + scaled(amount), 0n),
  }))
  const all = borne.reduce((sum, { amount }) => sum + amount, 0n)
  return [
    ...borne.map(({ account, name, currency, amount }) => line({ account, name }, currency, amount)),
    ...statements.slice(0, 1).map(({ currency }) => line(UPLIFTS, currency, -all)),
  ]
}

/** What is owed is a debit, what is given back a credit; nothing where it is zero. */
const line = ({ account, name }: { account: string; name: string }, currency: string, amount: Scaled): JournalLine => ({
  ...{ account, name, currency },
  debit: amount > 0n ? scaledText(amount) : null,
  credit: amount < 0n ? scaledText(-amount) : null,
})
