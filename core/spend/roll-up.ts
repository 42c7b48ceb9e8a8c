import { grainStart, grains, isWithin, type Grain } from '../time/grain'
import { combinationsOf } from './combinations'
import { kindColumn, splitColumns, type Groups } from './groups'
import type { Question } from './question'
import { Sums } from './sums'

/** Adds groups up over the splits that are left out, and over time to the steps of a grain that theirs lie within, or to all of it. */
export function rollUp(groups: Groups, splits: readonly number[], grain: Grain | null): Groups {
  const { starts, of: stepOf } = stepsOf(groups, grain)
  const steps = groups.steps.map(step => stepOf[step]!)
  const { of, first } = combinationsOf(
    [kindColumn(groups), ...splits.map(split => splitColumns(groups)[split]!), { codes: steps, size: Math.max(1, starts.length) }],
    groups.size,
  )
  const pick = (column: Int32Array) => {
    const picked = new Int32Array(first.length)
    for (let i = 0; i < picked.length; i++) picked[i] = column[first[i]!]!
    return picked
  }
  const counts = new Uint32Array(first.length)
  for (let group = 0; group < groups.size; group++) counts[of[group]!]! += groups.counts[group]!
  return {
    size: first.length,
    counts,
    cells: Uint32Array.from(first, (_, i) => i),
    sums: groups.sums.map(sum => {
      const rolled = new Sums(first.length)
      rolled.gather(of, sum, groups.cells)
      return rolled
    }),
    codes: splits.map(split => pick(groups.codes[split]!)),
    values: splits.map(split => groups.values[split]!),
    kinds: pick(groups.kinds),
    kindCount: groups.kindCount,
    denomination: groups.denomination,
    steps: pick(steps),
    starts: grain === null ? null : starts,
    cuts: null,
  }
}

/** The steps of a grain that hold those of the groups, in order, and for each of theirs which it lies in: all in one without a grain. */
function stepsOf({ starts: own }: Groups, grain: Grain | null): { starts: string[]; of: number[] } {
  if (own === null || grain === null) return { starts: [], of: own?.map(() => 0) ?? [0] }
  const within = own.map(start => (grain === 'hour' ? start : grainStart(start.slice(0, 10), grain)))
  const starts = [...new Set(within)]
  const places = new Map(starts.map((start, place) => [start, place]))
  return { starts, of: within.map(start => places.get(start)!) }
}

/** Which charges a question is about and what it adds up, whatever it splits by. */
export function about({ splitBy: _, grain: __, limit: ___, ...rest }: Question): string {
  return JSON.stringify(Object.entries(rest).sort(([a], [b]) => (a < b ? -1 : 1)))
}

/** Up to so many combinations of values are as quickly passed over together as a few. */
const FEW_COMBINATIONS = 1024

/** Questions that hold several of those given, for which one pass does: about the same charges, without time and of few values. */
export function jointQuestions(questions: readonly Question[], valuesOf: (dimension: string) => number): Question[] {
  const found = new Map<string, Question>()
  for (const question of questions) {
    if (question.grain !== null) continue
    const known = found.get(about(question))
    const splitBy = [...new Set([...(known?.splitBy ?? []), ...question.splitBy])]
    if (splitBy.reduce((product, dimension) => product * valuesOf(dimension), 1) <= FEW_COMBINATIONS)
      found.set(about(question), { ...question, splitBy, limit: undefined })
  }
  return [...found.values()]
}

/**
 * For each question, another among them whose groups hold its own, if any: the same charges split further, or by finer steps of time.
 * Of several the one that goes the least further is taken.
 */
export function finerQuestions(questions: readonly Question[]): (number | null)[] {
  const subjects = questions.map(about)
  const detail = ({ splitBy, grain }: Question) =>
    splitBy.length * (grains.length + 1) + (grain === null ? 0 : grains.length - grains.indexOf(grain))
  return questions.map((question, i) => {
    let found: number | null = null
    questions.forEach((other, k) => {
      const holds =
        subjects[i] === subjects[k] &&
        detail(other) > detail(question) &&
        question.splitBy.every(dimension => other.splitBy.includes(dimension)) &&
        (question.grain === null || (other.grain !== null && isWithin(other.grain, question.grain)))
      if (holds && (found === null || detail(other) < detail(questions[found]!))) found = k
    })
    return found
  })
}
