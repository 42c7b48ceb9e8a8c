import { scaled, scaledText, type Scaled } from '../money/scaled'
import type { DecimalText } from '../money/decimal'
import type { AnswerRow, Narrowing } from './question'

/** A tag that usage must have. */
export type RequiredTag = {
  key: string
  /** Sources that it is required of; all of them where none is named. */
  sources: string[]
  /** Sub accounts that it is required in; all of them where none is named. */
  subAccounts: string[]
  /** Values that it may have; any where none is named. */
  values: string[]
}

/** What is asked of the charges to judge a required tag: by its value, whose they are, where, and month by month. */
export const requiredTagScope = ({ key, sources, subAccounts }: RequiredTag): { keep: Narrowing; splitBy: string[] } => ({
  keep: {
    ChargeCategory: ['Usage'],
    ...(sources.length && { Source: [...sources] }),
    ...(subAccounts.length && { SubAccountName: [...subAccounts] }),
  },
  splitBy: [`Tags/${key}`, 'CostCentre', 'SubAccountName'],
})

/** What lacks the tag, and what has a value that it may not have. Decimal text in one currency. */
export type Failing = { missing: DecimalText; wrong: DecimalText }
export type JudgedTag = {
  whole: DecimalText
  failing: DecimalText
  /** The price of failing: what of it no rule puts on a cost centre or pool. */
  unplaced: DecimalText
  /** Step of time by step, in their order. */
  steps: (Failing & { start: string; whole: DecimalText })[]
  /** Whose it is that fails, and where, the most first; null for nobody's. */
  who: (Failing & { centre: string | null; subAccount: string | null; failing: DecimalText })[]
  /** Values that it may not have, the most first. */
  wrongValues: { value: string; amount: DecimalText }[]
}

/** Whether a value is one that the tag may have. */
export const isAllowed = ({ values }: Pick<RequiredTag, 'values'>, value: string): boolean => !values.length || values.includes(value)

type Sums = { whole: Scaled; missing: Scaled; wrong: Scaled }
const none = (): Sums => ({ whole: 0n, missing: 0n, wrong: 0n })

/**
 * Judges a required tag by effective cost.
 * @param rows of `requiredTagScope`, with a grain. @param currency in which; rows of others are left out.
 */
export function judgeTag(rows: readonly AnswerRow[], rule: RequiredTag, currency: string): JudgedTag {
  const all = none()
  let unplaced = 0n
  const steps = new Map<string, Sums>()
  const who = new Map<string, Sums & { centre: string | null; subAccount: string | null }>()
  const wrongValues = new Map<string, Scaled>()
  for (const { values, start, amount, currency: own } of rows) {
    if (own !== currency) continue
    const value = values[`Tags/${rule.key}`] ?? null
    const [centre, subAccount] = [values.CostCentre ?? null, values.SubAccountName ?? null]
    const cost = scaled(amount)
    const key = JSON.stringify([centre, subAccount])
    const person = who.get(key) ?? { ...none(), centre, subAccount }
    const step = steps.get(start ?? '') ?? none()
    who.set(key, person)
    steps.set(start ?? '', step)
    const into = value === null ? 'missing' : isAllowed(rule, value) ? null : 'wrong'
    for (const sums of [all, step, person]) {
      sums.whole += cost
      if (into) sums[into] += cost
    }
    if (into && centre === null) unplaced += cost
    if (into === 'wrong') wrongValues.set(value!, (wrongValues.get(value!) ?? 0n) + cost)
  }
  const failingOf = ({ missing, wrong }: Sums) => missing + wrong
  const text = ({ missing, wrong }: Sums): Failing => ({ missing: scaledText(missing), wrong: scaledText(wrong) })
  return {
    ...{ whole: scaledText(all.whole), failing: scaledText(failingOf(all)), unplaced: scaledText(unplaced) },
    steps: [...steps]
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([start, sums]) => ({ start, whole: scaledText(sums.whole), ...text(sums) })),
    who: [...who.values()]
      .filter(sums => failingOf(sums) !== 0n)
      .sort((a, b) => compare(failingOf(b), failingOf(a)))
      .map(sums => ({ centre: sums.centre, subAccount: sums.subAccount, failing: scaledText(failingOf(sums)), ...text(sums) })),
    wrongValues: [...wrongValues].sort(([, a], [, b]) => compare(b, a)).map(([value, amount]) => ({ value, amount: scaledText(amount) })),
  }
}

const compare = (a: Scaled, b: Scaled) => (a === b ? 0 : a < b ? -1 : 1)
