import { TupleIndex } from '../focus/column-values'
import { grainStart, grains, isWithin, type Grain } from '../time/grain'
import type { Groups } from './group'
import type { Question } from './question'
import { Sums } from './sums'

/** Adds groups up over the splits that are left out, and over time to the steps of a grain that theirs lie within, or to all of it. */
export function rollUp(groups: Groups, splits: readonly number[], grain: Grain | null): Groups {
  const steps = stepsOf(groups, grain)
  const index = new TupleIndex(splits.length + 2)
  const tuple = new Int32Array(splits.length + 2)
  const sums = groups.sums.map(() => new Sums(256))
  const member: number[] = []
  const counts: number[] = []
  for (let group = 0; group < groups.size; group++) {
    tuple[0] = groups.kind(group)
    tuple[1] = steps.of[groups.step(group)]!
    for (let split = 0; split < splits.length; split++) tuple[split + 2] = groups.code(group, splits[split]!)
    const place = index.place(tuple)
    if (place === member.length) {
      member.push(group)
      counts.push(0)
    }
    counts[place]! += groups.count(group)
    sums.forEach((sum, i) => {
      sum.grow(place + 1)
      sum.add(place, groups.sums[i]!, groups.cell(group))
    })
  }
  const step = (group: number) => steps.of[groups.step(member[group]!)]!
  return {
    size: member.length, sums, cell: group => group, count: group => counts[group]!,
    code: (group, split) => groups.code(member[group]!, splits[split]!), values: split => groups.values(splits[split]!),
    kind: group => groups.kind(member[group]!), denomination: group => groups.denomination(member[group]!),
    step, start: group => steps.starts[step(group)] ?? null,
  }
}

/** The steps of a grain that occur, in order, and for each step of the groups which of them it lies in: all in one without a grain. */
function stepsOf(groups: Groups, grain: Grain | null): { starts: string[], of: number[] } {
  const own: string[] = []
  for (let group = 0; group < groups.size; group++) own[groups.step(group)] ??= groups.start(group) ?? ''
  const within = own.map(start => grain === null ? '' : grain === 'hour' ? start : grainStart(start.slice(0, 10), grain))
  const starts = [...new Set(Object.values(within))].sort()
  const places = new Map(starts.map((start, place) => [start, place]))
  return { starts: grain === null ? [] : starts, of: within.map(start => places.get(start)!) }
}

/** Which charges a question is about and what it adds up, whatever it splits by. */
function about({ splitBy: _, grain: __, limit: ___, ...rest }: Question): string {
  return JSON.stringify(Object.entries(rest).sort(([a], [b]) => a < b ? -1 : 1))
}

/**
 * For each question, another among them whose groups hold its own, if any: the same charges split further, or by finer steps of time.
 * Of several the one that goes the least further is taken.
 */
export function finerQuestions(questions: readonly Question[]): (number | null)[] {
  const subjects = questions.map(about)
  const detail = ({ splitBy, grain }: Question) => splitBy.length * (grains.length + 1) + (grain === null ? 0 : grains.length - grains.indexOf(grain))
  return questions.map((question, i) => {
    let found: number | null = null
    questions.forEach((other, k) => {
      const holds = subjects[i] === subjects[k] && detail(other) > detail(question) && question.splitBy.every(dimension => other.splitBy.includes(dimension))
        && (question.grain === null || (other.grain !== null && isWithin(other.grain, question.grain)))
      if (holds && (found === null || detail(other) < detail(questions[found]!))) found = k
    })
    return found
  })
}
