import { TupleIndex } from '../focus/column-values'
import type { Groups } from './group'
import type { Question } from './question'
import { Sums } from './sums'

/** Adds groups up over the splits that are left out, and over time unless it is kept. */
export function rollUp(groups: Groups, splits: readonly number[], timed: boolean): Groups {
  const index = new TupleIndex(splits.length + 2)
  const tuple = new Int32Array(splits.length + 2)
  const sums = groups.sums.map(() => new Sums(256))
  const member: number[] = []
  const counts: number[] = []
  for (let group = 0; group < groups.size; group++) {
    tuple[0] = groups.kind(group)
    tuple[1] = timed ? groups.step(group) : 0
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
  return {
    size: member.length, sums, cell: group => group, count: group => counts[group]!,
    code: (group, split) => groups.code(member[group]!, splits[split]!), values: split => groups.values(splits[split]!),
    kind: group => groups.kind(member[group]!), denomination: group => groups.denomination(member[group]!),
    step: group => timed ? groups.step(member[group]!) : 0, start: group => timed ? groups.start(member[group]!) : null,
  }
}

/** Which charges a question is about and what it adds up, whatever it splits by. */
function about({ splitBy: _, grain: __, limit: ___, ...rest }: Question): string {
  return JSON.stringify(Object.entries(rest).sort(([a], [b]) => a < b ? -1 : 1))
}

/** For each question, another among them whose groups hold its own, if any: the same charges split further. The one with most splits is taken. */
export function finerQuestions(questions: readonly Question[]): (number | null)[] {
  const subjects = questions.map(about)
  const parts = (question: Question) => question.splitBy.length + (question.grain === null ? 0 : 1)
  return questions.map((question, i) => {
    let found: number | null = null
    questions.forEach((other, k) => {
      const holds = subjects[i] === subjects[k] && parts(other) > parts(question) && question.splitBy.every(dimension => other.splitBy.includes(dimension)) && (question.grain === null || question.grain === other.grain)
      if (holds && (found === null || parts(other) > parts(questions[found]!))) found = k
    })
    return found
  })
}
