import { asFactor, type RateFactor } from '../money/rate-factor'
import { rateDays, rateFinder, type Rate } from '../money/rates'
import { scaledText, timesDecimal, type Scaled } from '../money/scaled'
import type { Day } from '../time/day'
import { answersPacked, sumsFor } from './answer'
import { kindTotals, sumOf } from './rank'
import { plainOf, sumByCurrency, type Group } from './plain-groups'
import type { Cube } from './cube'
import { groupCharges } from './group'
import type { Groups } from './groups'
import { countingUp } from './order'
import { unpackAnswer, type PackedAnswer } from './packed'
import { costMeasures, type Answer, type CurrencyAmount, type Grouping, type Question, type Scope } from './question'
import { about, rollUp } from './roll-up'
import { Sums } from './sums'

/** What an answer in one currency adds: the amounts before they were converted, and what no rate was found for. */
type Conversion = { original: CurrencyAmount[]; unconverted: { currency: string; from: Day; to: Day; amount: string }[] }
export type Converted = Answer & Conversion
export type PackedConverted = PackedAnswer & Conversion

/** Answers in one currency, see `answersIn`. */
export function answerIn(cube: Cube, question: Question, reportCurrency: string, rates: readonly Rate[]): Converted {
  return unpackAnswer(answersIn(cube, [question], reportCurrency, rates)[0]!)
}

/**
 * Answers several questions in one currency. Each charge is converted at the rate of its day, whole sums between two dates of the list of
 * rates at once; every converted sum is rounded half to even to 15 decimals. What has no rate stays in its own currency and is named:
 * nothing is guessed. What is not money is answered as it is.
 */
export function answersIn(cube: Cube, questions: readonly Question[], reportCurrency: string, rates: readonly Rate[]): PackedConverted[] {
  const conversions = new Map<string, Conversion>()
  const answers = answersPacked(cube, questions, question => {
    if (!isMoney(question.measure)) return groupCharges(cube, { ...question, ...sumsFor(question.measure) })
    const { groups, ...conversion } = convertedGroups(cube, question, reportCurrency, rates)
    conversions.set(about(question), conversion)
    return groups
  })
  return answers.map((answer, i) => ({ ...answer, ...(conversions.get(about(questions[i]!)) ?? { original: [], unconverted: [] }) }))
}

/**
 * Groups as plain values, their first amount in one currency; each comes as often as rates change within the period. What has no rate stays
 * as it is.
 */
export function plainGroupsIn(cube: Cube, question: Grouping, reportCurrency: string, rates: readonly Rate[]): Group[] {
  const { days, factorOf } = factorsOver(question, reportCurrency, rates)
  const groups = groupCharges(cube, { ...question, cuts: days })
  return plainOf(groups, question).map((group, i) => {
    const factor = factorOf(group.currency, groups.cuts![groups.steps[i]!]!)
    const [cost, ...others] = group.amounts as [Scaled, ...Scaled[]]
    return factor ? { ...group, currency: reportCurrency, amounts: [timesDecimal(cost, factor.units, factor.digits), ...others] } : group
  })
}

/**
 * The days within a period at which other rates begin, and what an amount is multiplied by from each of them on; null where there is no
 * rate.
 */
function factorsOver(
  { start, end }: Scope,
  reportCurrency: string,
  rates: readonly Rate[],
): { days: Day[]; factorOf: (currency: string, cut: number) => RateFactor | null } {
  const days = rateDays(rates, reportCurrency, start, end)
  const rateOn = rateFinder(rates)
  const factorOn = (currency: string, day: Day) => {
    const found = rateOn(currency, reportCurrency, day)
    return found && asFactor(found.rate)
  }
  const known = new Map<string, (RateFactor | null)[]>()
  return {
    days,
    factorOf(currency, cut) {
      let factors = known.get(currency)
      if (!factors) known.set(currency, (factors = days.map(day => factorOn(currency, day))))
      return factors[cut]!
    },
  }
}

/** The groups of a question with their sums in one currency, as far as there are rates. */
function convertedGroups(cube: Cube, question: Question, reportCurrency: string, rates: readonly Rate[]): Conversion & { groups: Groups } {
  const { days, factorOf } = factorsOver(question, reportCurrency, rates)
  const groups = groupCharges(cube, { ...question, ...sumsFor(question.measure), cuts: days })
  const names = cube.currencies.includes(reportCurrency) ? cube.currencies : [...cube.currencies, reportCurrency]
  const own = names.indexOf(reportCurrency)
  const sums = new Sums(groups.size)
  const kinds = new Int32Array(groups.size)
  const lacking = new Map<number, Scaled>()
  for (let group = 0; group < groups.size; group++) {
    const kind = groups.kinds[group]!
    const cut = groups.cuts![groups.steps[group]!]!
    const factor = factorOf(names[kind]!, cut)
    const amount = sumOf(groups, group)
    kinds[group] = factor ? own : kind
    sums.set(group, !factor || kind === own ? amount : timesDecimal(amount, factor.units, factor.digits))
    if (!factor) lacking.set(kind * days.length + cut, (lacking.get(kind * days.length + cut) ?? 0n) + amount)
  }
  const converted: Groups = {
    ...groups,
    kinds,
    kindCount: names.length,
    denomination: kind => names[kind]!,
    sums: [sums],
    cells: countingUp(groups.size),
  }
  const originals = kindTotals(groups, countingUp(groups.size))
  return {
    groups: rollUp(
      converted,
      question.splitBy.map((_, split) => split),
      question.grain,
    ),
    original: sumByCurrency([...originals].map(([kind, { amount }]) => ({ currency: names[kind]!, amount }))),
    unconverted: gaps(lacking, names, days, question.end, (kind, cut) => factorOf(names[kind]!, cut) === null),
  }
}

/** What has no rate, a line for each currency and run of days that lack one. */
function gaps(
  lacking: Map<number, Scaled>,
  names: string[],
  days: Day[],
  end: Day,
  lacks: (kind: number, cut: number) => boolean,
): Conversion['unconverted'] {
  const found: { kind: number; first: number; last: number; amount: Scaled }[] = []
  for (const [key, amount] of [...lacking].sort(([a], [b]) => a - b)) {
    const [kind, cut] = [Math.floor(key / days.length), key % days.length]
    const before = found.at(-1)
    const between = before?.kind === kind ? days.slice(before.last + 1, cut).every((_, i) => lacks(kind, before.last + 1 + i)) : false
    if (before && between) {
      before.last = cut
      before.amount += amount
    } else found.push({ kind, first: cut, last: cut, amount })
  }
  return found.map(({ kind, first, last, amount }) => ({
    currency: names[kind]!,
    from: days[first]!,
    to: days[last + 1] ?? end,
    amount: scaledText(amount),
  }))
}

function isMoney(measure: Question['measure']): boolean {
  return (costMeasures as readonly string[]).includes(measure) || measure === 'savedAgainstList'
}
