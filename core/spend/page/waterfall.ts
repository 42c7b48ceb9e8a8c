import { addTexts, subtractTexts } from '../../money/amount-text'
import { effectNames, type Comparison, type Contribution, type Effect } from '../compare'

/** The largest steps that a waterfall shows one by one. */
const STEPS = 8

/** A bar of a waterfall: a level, from nothing to an amount, or a step between two levels. `left` and `width` are percents of the scale. */
export type Bar = {
  kind: 'level' | 'step'
  /** What it stands for: the amount before, one contribution, so many others together, the amount now. */
  of: 'before' | Contribution | { others: number } | 'now'
  amount: string
  left: number
  width: number
}

type Total = Pick<Contribution, 'before' | 'now' | 'difference'>

/**
 * The bars from one amount to another: before, the largest steps, the rest as one, now. They add up exactly; only the lengths are drawn.
 * @param contributions largest first.
 * @returns the bars, and whether the scale begins above zero so that the steps can be seen.
 */
export function waterfall(total: Total, contributions: readonly Contribution[]): { bars: Bar[]; isCut: boolean } {
  const moved = contributions.filter(({ difference }) => Number(difference) !== 0)
  const largest = moved.slice(0, STEPS)
  const others = moved.length - largest.length
  const steps: Pick<Bar, 'of' | 'amount'>[] = largest.map(of => ({ of, amount: of.difference }))
  if (others > 0) steps.push({ of: { others }, amount: subtractTexts(total.difference, addTexts(largest.map(c => c.difference))) })
  let level = Number(total.before)
  const drawn = [
    { kind: 'level' as const, of: 'before' as const, amount: total.before, from: 0, to: level },
    ...steps.map(step => ({ kind: 'step' as const, ...step, from: level, to: (level += Number(step.amount)) })),
    { kind: 'level' as const, of: 'now' as const, amount: total.now, from: 0, to: Number(total.now) },
  ]
  const levels = drawn.flatMap(({ kind, from, to }) => (kind === 'step' ? [from, to] : [to]))
  const low = Math.min(...levels)
  const high = Math.max(...levels)
  const isCut = low > 0 && high - low < low * 0.5
  const start = isCut ? low - (high - low) * 0.25 : Math.min(0, low)
  const span = Math.max(0, high) - start || 1
  const place = (value: number) => Math.max(0, ((value - start) / span) * 100)
  const bars = drawn.map(({ from, to, ...bar }): Bar => ({
    ...bar,
    left: place(Math.min(from, to)),
    width: Math.max(0.4, Math.abs(place(to) - place(from))),
  }))
  return { bars, isCut }
}

/** The causes of a change, those that did something, largest first. */
export function causesOf({ effects }: Pick<Contribution, 'effects'>): { name: Effect; amount: string }[] {
  return effectNames
    .map(name => ({ name, amount: effects[name] }))
    .filter(({ amount }) => Number(amount) !== 0)
    .sort((a, b) => Math.abs(Number(b.amount)) - Math.abs(Number(a.amount)))
}

/** What is left of a total beside some of its contributions, exactly. */
export function restOf(
  total: Comparison['totals'][number],
  shown: readonly Contribution[],
): Omit<Comparison['totals'][number], 'currency'> {
  const left = (of: (figures: Omit<Comparison['totals'][number], 'currency'>) => string) =>
    subtractTexts(of(total), addTexts(shown.map(of)))
  return {
    now: left(c => c.now),
    before: left(c => c.before),
    difference: left(c => c.difference),
    perDay: left(c => c.perDay),
    effects: Object.fromEntries(effectNames.map(name => [name, left(c => c.effects[name])])) as Contribution['effects'],
  }
}
