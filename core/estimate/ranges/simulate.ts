import { compile } from '../../working/draws'
import { applies } from '../components/kind'
import { readHours } from '../sheet/hours-text'
import { readNumber, type TypedNumber } from '../sheet/number-text'
import { figureNames, figureText, type FigureName } from '../pricing/price-estimate'
import type { PricedEstimate } from '../pricing/priced'
import { pert, seeded } from './random'

export const DRAWS = 10_000
const BINS = 32

/** An input that is a range, as the draws take it. */
export type UncertainInput = {
  ref: string
  component: string
  field: string
  label: string
  low: number
  likely: number
  high: number
  whole: boolean
}

/** What an uncertain input alone does to the effective monthly total: from its low to its high value, all others at their likely ones. */
export type Swing = { ref: string; component: string; label: string; low: number; high: number; size: number }

export type Simulated = {
  draws: number
  quantiles: Record<FigureName, { p10: number; p50: number; p90: number }>
  /** The effective monthly totals that were drawn, counted in bins of equal width. */
  histogram: { from: number; to: number; counts: number[] }
  /** Largest first. */
  tornado: Swing[]
}

/** Every input of a counted row that is given as low, likely and high. */
export function uncertainInputs(priced: PricedEstimate): UncertainInput[] {
  return priced.rows
    .filter(row => priced.counted.has(row.id))
    .flatMap(row =>
      row
        .kind!.fields.filter(field => applies(field, row.inputs, row.place!))
        .flatMap((field): UncertainInput[] => {
          const number = typedNumber(field.type, row.inputs[field.name] ?? '')
          if (!number?.isRange) return []
          const [low, likely, high] = [number.low, number.likely, number.high].map(Number) as [number, number, number]
          return [
            {
              ref: `${row.id}.${field.name}`,
              component: row.id,
              field: field.name,
              label: `${row.kind!.label}, ${field.label}`,
              low,
              likely,
              high,
              whole: field.type === 'number' && field.whole === true,
            },
          ]
        }),
    )
}

function typedNumber(type: string, text: string): TypedNumber | null {
  if (type === 'number') return readNumber(text)
  const hours = type === 'hours' ? readHours(text) : null
  return hours && 'number' in hours ? hours.number : null
}

/**
 * Draws every uncertain input many times and computes the totals with the very trees of the sheet, in plain numbers. The same seed gives
 * the same result. Without a range every quantile is the total itself.
 * @param progress is told how many draws are done; returning false stops. @returns null when it was stopped.
 */
export function simulate(
  priced: PricedEstimate,
  seed: number,
  draws: number = DRAWS,
  progress: (done: number) => boolean = () => true,
): Simulated | null {
  const uncertain = uncertainInputs(priced)
  const roots = figureNames.map(name => priced.total[name])
  const point = roots.map(root => Number(figureText(root)))
  const main = figureNames.indexOf('effectiveMonthly')
  if (!uncertain.length) {
    const quantiles = Object.fromEntries(
      figureNames.map((name, i) => [name, { p10: point[i]!, p50: point[i]!, p90: point[i]! }]),
    ) as Simulated['quantiles']
    return { draws: 0, quantiles, histogram: { from: point[main]!, to: point[main]!, counts: [] }, tornado: [] }
  }
  const program = compile(roots, new Set(uncertain.map(u => u.ref)))
  const byRef = new Map(uncertain.map(u => [u.ref, u]))
  const inputs = program.variables.map(ref => byRef.get(ref)!)
  const random = seeded(seed)
  const values = new Float64Array(inputs.length)
  const results = figureNames.map(() => new Float64Array(draws))
  for (let draw = 0; draw < draws; draw++) {
    inputs.forEach(({ low, likely, high, whole }, i) => {
      const value = pert(random, low, likely, high)
      values[i] = whole ? Math.round(value) : value
    })
    const figures = program.run(values)
    for (let i = 0; i < results.length; i++) results[i]![draw] = figures[i]!
    if (draw % 1000 === 999 && !progress(draw + 1)) return null
  }
  for (const result of results) result.sort()
  const quantile = (sorted: Float64Array, share: number) => {
    const at = share * (sorted.length - 1)
    const below = Math.floor(at)
    return sorted[below]! + (at - below) * ((sorted[below + 1] ?? sorted[below]!) - sorted[below]!)
  }
  const quantiles = Object.fromEntries(
    figureNames.map((name, i) => [
      name,
      { p10: quantile(results[i]!, 0.1), p50: quantile(results[i]!, 0.5), p90: quantile(results[i]!, 0.9) },
    ]),
  ) as Simulated['quantiles']
  return { draws, quantiles, histogram: binned(results[main]!), tornado: tornado(program.run, inputs, main) }
}

function binned(sorted: Float64Array): Simulated['histogram'] {
  const [from, to] = [sorted[0]!, sorted.at(-1)!]
  const counts = new Array<number>(BINS).fill(0)
  const width = (to - from) / BINS
  for (const value of sorted) counts[width > 0 ? Math.min(BINS - 1, Math.floor((value - from) / width)) : 0]!++
  return { from, to, counts }
}

function tornado(run: (values: ArrayLike<number>) => Float64Array, inputs: UncertainInput[], main: number): Swing[] {
  const likely = inputs.map(u => u.likely)
  const at = (i: number, value: number) => run(likely.map((v, j) => (j === i ? value : v)))[main]!
  return inputs
    .map(({ ref, component, label, low, high }, i) => {
      const [atLow, atHigh] = [at(i, low), at(i, high)]
      return { ref, component, label, low: atLow, high: atHigh, size: Math.abs(atHigh - atLow) }
    })
    .sort((a, b) => b.size - a.size)
}
