import { Decimal } from '../money/decimal'
import { rateDays, rateOn, type Rate } from '../money/rates'
import { parseScaled, scaled, scaledText, type Scaled } from '../money/scaled'
import type { Day } from '../time/day'
import { answer, firstOfEach, sumByCurrency } from './answer'
import type { Cube } from './cube'
import { costMeasures, type Answer, type AnswerRow, type CurrencyAmount, type Question } from './question'

/** What an answer in one currency adds: the amounts before they were converted, and what no rate was found for. */
export type Converted = Answer & { original: CurrencyAmount[], unconverted: { currency: string, from: Day, to: Day, amount: string }[] }

/**
 * Answers in one currency. Each charge is converted at the rate of its day, whole sums between two dates of the list of rates at once;
 * every converted sum is rounded half to even to 15 decimals. What has no rate stays in its own currency and is named: nothing is guessed.
 */
export function answerIn(cube: Cube, question: Question, reportCurrency: string, rates: readonly Rate[]): Converted {
  if (!isMoney(question.measure)) return { ...answer(cube, question), original: [], unconverted: [] }
  const { limit, ...all } = question
  const days = rateDays(rates, reportCurrency, question.start, question.end)
  const rows = new Map<string, { row: AnswerRow, amount: Scaled }>()
  const original: CurrencyAmount[] = []
  const unconverted: Converted['unconverted'] = []
  days.forEach((start, i) => {
    const end = days[i + 1] ?? question.end
    const part = answer(cube, { ...all, start, end })
    original.push(...part.totals)
    const known = new Map(part.totals.map(({ currency }) => [currency, rateOn(rates, currency, reportCurrency, start)]))
    for (const { currency, amount } of part.totals) if (!known.get(currency)) unconverted.push({ currency, from: start, to: end, amount })
    for (const row of part.rows) {
      const found = known.get(row.currency)
      const currency = found ? reportCurrency : row.currency
      const key = JSON.stringify([row.start, currency, ...question.splitBy.map(dimension => row.values[dimension])])
      const amount = found ? convert(row.amount, found.rate) : scaled(row.amount)
      const entry = rows.get(key)
      if (entry) entry.amount += amount
      else rows.set(key, { row: { ...row, currency }, amount })
    }
  })
  const merged = [...rows.values()].sort((a, b) => (a.row.start ?? '') === (b.row.start ?? '') ? (a.amount === b.amount ? 0 : a.amount > b.amount ? -1 : 1) : (a.row.start ?? '') < (b.row.start ?? '') ? -1 : 1)
  return { ...cutTo(merged, limit, question.splitBy), original: sumByCurrency(original.map(({ currency, amount }) => ({ currency, amount: scaled(amount) }))), unconverted }
}

/** The largest rows of an answer, and the rest with its count. */
function cutTo(rows: { row: AnswerRow, amount: Scaled }[], limit: number | undefined, splitBy: readonly string[]): Answer {
  const totals = sumByCurrency(rows.map(({ row, amount }) => ({ currency: row.currency, amount })))
  const written = (list: typeof rows) => list.map(({ row, amount }) => ({ ...row, amount: scaledText(amount) }))
  const name = ({ row }: { row: AnswerRow }) => JSON.stringify([row.currency, ...splitBy.map(dimension => row.values[dimension])])
  const sizes = new Map<string, { currency: string, amount: Scaled }>()
  for (const item of rows) sizes.set(name(item), { currency: item.row.currency, amount: (sizes.get(name(item))?.amount ?? 0n) + item.amount })
  if (limit === undefined || sizes.size <= limit) return { totals, rows: written(rows), rest: null }
  const size = (n: Scaled) => n < 0n ? -n : n
  const ordered = [...sizes].sort(([, { amount: a }], [, { amount: b }]) => size(a) === size(b) ? 0 : size(a) > size(b) ? -1 : 1)
  const largest = new Set(firstOfEach(ordered, ([, { currency }]) => currency, limit).map(([key]) => key))
  if (largest.size === sizes.size) return { totals, rows: written(rows), rest: null }
  const left = rows.filter(item => !largest.has(name(item)))
  return { totals, rows: written(rows.filter(item => largest.has(name(item)))), rest: { count: sizes.size - largest.size, amounts: sumByCurrency(left.map(({ row, amount }) => ({ currency: row.currency, amount }))) } }
}

function convert(amount: string, rate: Decimal): Scaled {
  return parseScaled(new Decimal(amount).times(rate).toFixed())!.value
}

function isMoney(measure: Question['measure']): boolean {
  return (costMeasures as readonly string[]).includes(measure) || measure === 'savedAgainstList'
}
