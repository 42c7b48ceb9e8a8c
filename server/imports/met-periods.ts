import type { TakenCharge } from '../../core/focus/intake/charge'
import type { Wrong } from '../../core/focus/problem'
import { dictionaryNames } from '../../core/focus/star'
import { runsOf } from '../../core/time/day-runs'
import { instantOf } from '../../core/time/instant'
import type { Held } from '../db/schema'

const billingAccountPlace = dictionaryNames.indexOf('billingAccount')
const subAccountPlace = dictionaryNames.indexOf('subAccount')

/** What was met of a billing period: its billing accounts with their sub accounts, by numbers of entries, and the days charges start on. */
type Period = { end: number; accounts: Map<number, Set<number>>; days: Set<number> }

/** What a delivery holds of each billing period, found while it is read. Neighbours are mostly alike, which is looked at first. */
export class MetPeriods {
  readonly #periods = new Map<number, Period>()
  #lastStart = NaN
  #lastEnd = NaN
  #lastAccount = -1
  #lastSubAccount = -1
  #lastDay = NaN

  /** @returns what is wrong when a charge ends its billing period elsewhere than others do, which is said again for each such charge. */
  meet({ times, keys }: TakenCharge): { value: string; wrong: Wrong } | null {
    const { BillingPeriodStart: start, BillingPeriodEnd: end } = times
    const account = keys[billingAccountPlace]!
    const subAccount = keys[subAccountPlace]!
    const day = Math.floor(times.ChargePeriodStart / 86_400)
    if (
      start === this.#lastStart &&
      day === this.#lastDay &&
      subAccount === this.#lastSubAccount &&
      account === this.#lastAccount &&
      end === this.#lastEnd
    )
      return null
    let period = this.#periods.get(start)
    if (!period) this.#periods.set(start, (period = { end, accounts: new Map(), days: new Set() }))
    const subAccounts = period.accounts.get(account)
    if (subAccounts) subAccounts.add(subAccount)
    else period.accounts.set(account, new Set([subAccount]))
    period.days.add(day)
    if (period.end !== end) {
      const reason = `other charges of the period that starts ${instantOf(start)} end it at ${instantOf(period.end)}`
      return { value: instantOf(end), wrong: { reason, mend: 'Give all charges of a billing period the same end.' } }
    }
    this.#lastStart = start
    this.#lastEnd = end
    this.#lastAccount = account
    this.#lastSubAccount = subAccount
    this.#lastDay = day
    return null
  }

  /** @returns by the start of each billing period, its end. */
  ends(): Record<string, string> {
    return Object.fromEntries(this.#inOrder().map(([start, { end }]) => [instantOf(start), instantOf(end)]))
  }

  /**
   * @param idOf the ids of entries by their numbers; null holds no account.
   * @returns by the start of each billing period, what is held of it.
   */
  held(idOf: ((name: 'billingAccount' | 'subAccount', number: number) => number) | null): Record<string, Held> {
    const pairs = (accounts: Period['accounts'], id: NonNullable<typeof idOf>) =>
      [...accounts].flatMap(([account, subAccounts]) =>
        [...subAccounts].map((subAccount): [number, number] => [id('billingAccount', account), id('subAccount', subAccount)]),
      )
    return Object.fromEntries(
      this.#inOrder().map(([start, { accounts, days }]) => [
        instantOf(start),
        { accounts: idOf ? pairs(accounts, idOf) : [], days: runsOf(days) },
      ]),
    )
  }

  #inOrder(): [number, Period][] {
    return [...this.#periods].sort(([a], [b]) => a - b)
  }
}
