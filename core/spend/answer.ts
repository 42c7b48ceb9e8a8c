import { scaledText, type Scaled } from '../money/scaled'
import { dayFromNumber, dayNumber, type Day } from '../time/day'
import type { DictionaryName } from '../focus/star'
import type { Coding, Cube, MeasureName } from './cube'
import { LimbSums } from './limbs'
import type { Answer, AnswerRow, CurrencyAmount, Narrowing, Question } from './question'

/** A group of charges with the exact sum of each measure that was asked for. */
export type Group = { values: Record<string, string | null>, start: Day | null, currency: string, amounts: Scaled[], count: number }

type Grouping = Omit<Question, 'measure' | 'limit'> & { measures: readonly MeasureName[] }

/** Up to this many cells are kept in flat arrays; more, and a hash finds the cell. */
const DENSE_CELLS = 1 << 20

/**
 * Sums measures over the charges a question reaches, by the values it splits by, by start and by currency.
 * One general loop: narrowing is decided on dictionary entries first, then the rows are passed over once.
 * @returns one group per combination that has charges, also when they sum to zero.
 */
export function groupCharges(cube: Cube, question: Grouping): Group[] {
  const codings = question.splitBy.map(dimension => cube.coding(dimension))
  const allowed = allowedEntries(cube, question.keep, question.leaveOut)
  const startHour = dayNumber(question.start) * 24
  const endHour = dayNumber(question.end) * 24
  const steps = grainSteps(question)
  const sizes = [...codings.map(coding => coding.values.length), steps.starts.length, Math.max(1, cube.currencies.length)]
  const cells = sizes.reduce((a, b) => a * b, 1)
  const dense = cells <= DENSE_CELLS
  // beyond what a float counts exactly, keys would run into each other: then the codes are written out as text
  const countable = cells <= Number.MAX_SAFE_INTEGER
  const cellOf = new Map<number | string, number>()
  const codesOf: number[][] = []
  const sums = question.measures.map(() => new LimbSums(dense ? cells : 1024))

  for (const chunk of cube.chunks.values()) {
    if (question.billingMonth && !chunk.billingPeriodStart.startsWith(question.billingMonth)) continue
    const filters = [...allowed].map(([dictionary, entries]) => ({ keys: chunk.keys[dictionary], entries }))
    const splits = codings.map((coding, i) => ({ keys: chunk.keys[coding.dictionary], codes: coding.codes, stride: sizes.slice(i + 1).reduce((a, b) => a * b, 1) }))
    const measures = question.measures.map(name => chunk.measures[name])
    const currencies = sizes[sizes.length - 1]!
    rows: for (let row = 0; row < chunk.rows; row++) {
      const hour = chunk.startHour[row]!
      if (hour < startHour || hour >= endHour) continue
      for (const filter of filters) if (!filter.entries[filter.keys[row]!]) continue rows
      const step = steps.step(hour - startHour)
      let cell = step * currencies + chunk.currency[row]!
      for (const split of splits) cell += split.codes[split.keys[row]!]! * split.stride
      if (!dense) {
        const codes = () => [...splits.map(split => split.codes[split.keys[row]!]!), step, chunk.currency[row]!]
        const key = countable ? cell : codes().join()
        const known = cellOf.get(key)
        if (known === undefined) {
          cell = codesOf.push(codes()) - 1
          cellOf.set(key, cell)
          for (const sum of sums) sum.grow(cell + 1)
        }
        else cell = known
      }
      for (let m = 0; m < sums.length; m++) sums[m]!.add(cell, measures[m]!.high[row]!, measures[m]!.low[row]!)
    }
  }
  return collect(question, cube, codings, steps.starts, sizes, sums, dense ? null : codesOf)
}

function collect(question: Grouping, cube: Cube, codings: Coding[], starts: (Day | null)[], sizes: number[], sums: LimbSums[], codesOf: number[][] | null): Group[] {
  const groups: Group[] = []
  const [first] = sums
  const cells = codesOf ? codesOf.length : sizes.reduce((a, b) => a * b, 1)
  for (let cell = 0; cell < cells; cell++) {
    if (!first || first.count(cell) === 0) continue
    const codes = codesOf ? codesOf[cell]! : codesOfCell(cell, sizes)
    const values: Record<string, string | null> = {}
    codings.forEach((coding, i) => {
      values[question.splitBy[i]!] = coding.values[codes[i]!]!
    })
    groups.push({
      values, start: starts[codes[codings.length]!]!, currency: cube.currencies[codes[codings.length + 1]!]!,
      amounts: sums.map(sum => sum.total(cell)), count: first.count(cell),
    })
  }
  return groups
}

/** Takes a dense cell apart into the codes it was made of. */
function codesOfCell(cell: number, sizes: number[]): number[] {
  const codes: number[] = []
  for (let i = sizes.length - 1; i >= 0; i--) {
    codes[i] = cell % sizes[i]!
    cell = Math.floor(cell / sizes[i]!)
  }
  return codes
}

/** For each dictionary that the narrowing touches: 1 for the entries that stay. */
function allowedEntries(cube: Cube, keep: Narrowing, leaveOut: Narrowing): Map<DictionaryName, Uint8Array> {
  const allowed = new Map<DictionaryName, Uint8Array>()
  const narrow = (narrowing: Narrowing, stays: boolean) => {
    for (const [dimension, list] of Object.entries(narrowing)) {
      const coding = cube.coding(dimension)
      const wanted = new Set(list)
      const inList = coding.values.map(value => wanted.has(value))
      const entries = allowed.get(coding.dictionary) ?? new Uint8Array(coding.codes.length).fill(1)
      for (let id = 0; id < entries.length; id++) if (inList[coding.codes[id]!] !== stays) entries[id] = 0
      allowed.set(coding.dictionary, entries)
    }
  }
  narrow(keep, true)
  narrow(leaveOut, false)
  return allowed
}

function grainSteps(question: Grouping): { starts: (Day | null)[], step: (hours: number) => number } {
  if (question.grain === null) return { starts: [null], step: () => 0 }
  const first = dayNumber(question.start)
  const days = Math.max(0, dayNumber(question.end) - first)
  if (question.grain === 'day') {
    return { starts: Array.from({ length: days }, (_, i) => dayFromNumber(first + i)), step: hours => Math.floor(hours / 24) }
  }
  const starts: Day[] = []
  const stepOfDay = new Int32Array(days)
  for (let i = 0; i < days; i++) {
    const month = `${dayFromNumber(first + i).slice(0, 7)}-01`
    if (starts.at(-1) !== month) starts.push(month)
    stepOfDay[i] = starts.length - 1
  }
  return { starts, step: hours => stepOfDay[Math.floor(hours / 24)]! }
}

/** Adds up by currency, in the order of the alphabet. */
export function sumByCurrency(items: Iterable<{ currency: string, amount: Scaled }>): CurrencyAmount[] {
  const totals = new Map<string, Scaled>()
  for (const { currency, amount } of items) totals.set(currency, (totals.get(currency) ?? 0n) + amount)
  return [...totals].sort(([a], [b]) => a < b ? -1 : 1).map(([currency, amount]) => ({ currency, amount: scaledText(amount) }))
}

/**
 * Answers a question: totals per currency, rows largest first within each start, and, under a limit, the rest with its count.
 * Totals are exact sums of rows and rest. With a limit and a grain, the limit holds for the whole period: the combinations that are
 * largest over it keep their rows at every start.
 */
export function answer(cube: Cube, question: Question): Answer {
  return answerFromGroups(question, groupCharges(cube, { ...question, measures: [question.measure] })
    .map(group => ({ values: group.values, start: group.start, currency: group.currency, amount: group.amounts[0]! })))
}

type Sum = { values: Record<string, string | null>, start: Day | null, currency: string, amount: Scaled }

/** Orders and cuts sums into an answer; shared with the engine that computes them in SQL. */
export function answerFromGroups(question: Pick<Question, 'splitBy' | 'limit'>, groups: Sum[]): Answer {
  const identity = (group: Sum) => JSON.stringify([group.currency, ...question.splitBy.map(dimension => group.values[dimension])])
  const named = groups.map(group => ({ group, id: identity(group) }))
  const byStartAndSize = (a: { group: Sum, id: string }, b: { group: Sum, id: string }) =>
    a.group.start === b.group.start
      ? a.group.amount === b.group.amount ? (a.id < b.id ? -1 : 1) : a.group.amount > b.group.amount ? -1 : 1
      : (a.group.start ?? '') < (b.group.start ?? '') ? -1 : 1
  named.sort(byStartAndSize)
  let kept = named
  let rest: Answer['rest'] = null
  if (question.limit !== undefined) {
    const sizes = new Map<string, Scaled>()
    for (const { group, id } of named) sizes.set(id, (sizes.get(id) ?? 0n) + group.amount)
    const ranked = [...sizes].sort(([a, x], [b, y]) => x === y ? (a < b ? -1 : 1) : x > y ? -1 : 1)
    if (ranked.length > question.limit) {
      const largest = new Set(ranked.slice(0, question.limit).map(([id]) => id))
      kept = named.filter(({ id }) => largest.has(id))
      const left = named.filter(({ id }) => !largest.has(id))
      rest = { count: ranked.length - largest.size, amounts: sumByCurrency(left.map(({ group }) => group)) }
    }
  }
  const row = ({ group }: { group: Sum }): AnswerRow => ({ values: group.values, start: group.start, currency: group.currency, amount: scaledText(group.amount) })
  return { totals: sumByCurrency(groups), rows: kept.map(row), rest }
}
