import { scaled } from '../money/scaled'
import type { Cube } from './cube'
import { groupCharges } from './group'
import type { Groups } from './groups'
import { adds, type Answer, type Denomination, type Measure, type Question } from './question'
import { countingUp } from './order'
import { packAnswer, unpackAnswer, type PackedAnswer } from './packed'
import { finerQuestions, jointQuestions, rollUp } from './roll-up'
import type { MeasureName } from './segment'
import { priceAnswer } from './price-answer'
import { nearSums, largestGroups, sorted, kindTotals } from './rank'
import { packGroups } from './pack-groups'
import { valueOf, sumByCurrency } from './plain-groups'

/** Which sums a measure needs, and what keeps them apart. */
export function sumsFor(measure: Measure): { measures: MeasureName[]; by: Denomination } {
  switch (measure) {
    case 'pricingQuantity':
      return { measures: ['pricingQuantity'], by: 'pricing unit' }
    case 'consumedQuantity':
      return { measures: ['consumedQuantity'], by: 'consumed unit' }
    case 'savedAgainstList':
      return { measures: ['listCost', 'effectiveCost'], by: 'currency' }
    case 'unitPrice':
      return { measures: ['effectiveCost', 'pricingQuantity'], by: 'currency per pricing unit' }
    default:
      return { measures: [measure], by: 'currency' }
  }
}

/**
 * Answers a question: totals per currency (or unit), rows largest first within each start, and, under a limit, the rest with its count.
 * Totals are exact sums of rows and rest. A limit keeps so many of each currency or unit, the largest in size, credits too. With a grain it
 * holds for the whole period: the combinations that are largest over it keep their rows at every start. Unit prices do not add: their
 * totals are the whole cost by the whole quantity;
 * what has no quantity has no row, and is listed as unpriced.
 */
export function answer(cube: Cube, question: Question): Answer {
  return unpackAnswer(answersPacked(cube, [question])[0]!)
}

/** From so many possible values on, the largest are found over the whole period, and then only their charges are looked at by time. */
const MANY_VALUES = 2000

function findsLargestFirst(cube: Cube, { splitBy, grain, limit, measure, conditions = [] }: Question): boolean {
  // a cost above something is meant of all charges: among those of the largest values alone it would be another cost
  return (
    grain !== null &&
    limit !== undefined &&
    adds(measure) &&
    !conditions.some(condition => 'above' in condition) &&
    splitBy.reduce((product, dimension) => product * cube.coding(dimension).values.length, 1) > MANY_VALUES
  )
}

/** Groups are rolled up from others only where there are so many fewer of them than charges. */
const FEWER = 4

/**
 * Answers several questions, their rows packed. Where one splits the same charges further than another, the charges are passed over for it
 * alone, and the
 * other is added up from its groups; so are several of few values from one that is asked for all of them.
 * @param groupsFor passes over the charges, for whoever makes more of the groups than their sums.
 */
export function answersPacked(
  cube: Cube,
  asked: readonly Question[],
  groupsFor: (question: Question) => Groups = question => groupCharges(cube, { ...question, ...sumsFor(question.measure) }),
): PackedAnswer[] {
  const first = asked.map((question): Question => (findsLargestFirst(cube, question) ? { ...question, grain: null } : question))
  const roots = finerQuestions(first)
  const questions = [
    ...first,
    ...jointQuestions(
      first.filter((_, i) => roots[i] === null),
      dimension => cube.coding(dimension).values.length,
    ),
  ]
  const finer = finerQuestions(questions)
  const most = cube.rows / FEWER
  const known = new Map<number, Groups>()
  const groupsOf = (i: number): Groups => {
    const done = known.get(i)
    if (done) return done
    const question = questions[i]!
    const from = finer[i] ?? null
    const whole = from === null ? null : groupsOf(from)
    const groups =
      whole && whole.size <= most
        ? rollUp(
            whole,
            question.splitBy.map(dimension => questions[from!]!.splitBy.indexOf(dimension)),
            question.grain,
          )
        : groupsFor(question)
    known.set(i, groups)
    return groups
  }
  return asked.map((question, i) => {
    if (question.grain !== first[i]!.grain) return byTimeAnswer(groupsOf(i), question, groupsFor)
    return adds(question.measure) ? sumAnswer(groupsOf(i), question) : packAnswer(priceAnswer(groupsOf(i), question), question.splitBy)
  })
}

function sumAnswer(groups: Groups, { splitBy, limit }: Pick<Question, 'splitBy' | 'limit'>): PackedAnswer {
  const near = nearSums(groups)
  const { kept, ...sums } = largestGroups(groups, near, limit)
  return { ...sums, splitBy, rows: packGroups(groups, sorted(groups, kept, near)) }
}

/** The course in time of the combinations that are largest over the whole period, given the groups of all of it. */
function byTimeAnswer(whole: Groups, question: Question, groupsFor: (question: Question) => Groups): PackedAnswer {
  const { kept, rest } = largestGroups(whole, nearSums(whole), question.limit)
  const keep = { ...question.keep }
  question.splitBy.forEach((dimension, split) => {
    keep[dimension] = [...new Set(Array.from(kept, group => valueOf(whole, group, split)))]
  })
  const groups = groupsFor({ ...question, keep })
  // values of one dimension are kept whatever the others: not each combination of them is among the largest
  const nameOf = ({ kinds, codes }: Groups, group: number) => JSON.stringify([kinds[group], ...codes.map(own => own[group])])
  const names = new Set(Array.from(kept, group => nameOf(whole, group)))
  const shown = countingUp(groups.size).filter(group => names.has(nameOf(groups, group)))
  // sums that were rounded on the way, by the day, are added up as they are shown
  const totals = sumByCurrency([
    ...(rest?.amounts.map(({ currency, amount }) => ({ currency, amount: scaled(amount) })) ?? []),
    ...[...kindTotals(groups, shown)].map(([kind, { amount }]) => ({ currency: groups.denomination(kind), amount })),
  ])
  return { totals, rest, splitBy: question.splitBy, rows: packGroups(groups, sorted(groups, shown, nearSums(groups))) }
}
