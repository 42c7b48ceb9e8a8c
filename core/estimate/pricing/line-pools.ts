import { allowanceOf, isPooled, priceQuantity, raisedBy, type Raised } from '../../ratecard/price-quantity'
import type { PriceLine } from '../../ratecard/rate-card'
import { add, divide, evaluate, multiply, subtract, type Working } from '../../working/working'
import { none } from '../components/kind'

/** A quantity of a line that a row draws, the same every month or month by month; what comes after the last month is like it. */
export type Drawn = { id: string; label: string; provider: string; line: PriceLine; quantity: Working | readonly Working[] }

export const lineKey = ({ provider, line }: Pick<Drawn, 'provider' | 'line'>): string => `${provider}\n${line.sku}`
const isMonthly = (quantity: Drawn['quantity']): quantity is readonly Working[] => Array.isArray(quantity)
/** What is drawn in a month. */
export const inMonth = ({ quantity }: Drawn, month: number): Working =>
  isMonthly(quantity) ? (quantity[month] ?? quantity.at(-1) ?? none) : quantity
/** How many months of their own the quantities have; zero for the same every month. */
export const monthsOf = (drawn: readonly Drawn[]): number =>
  drawn.reduce((most, { quantity }) => (isMonthly(quantity) ? Math.max(most, quantity.length) : most), 0)

/**
 * All that draws on one line of a rate card. The line is priced once, on the sum; each bears its part in proportion to its quantity, and
 * what division leaves over goes with the last in the order of the rows' ids, so that the parts add up exactly and no total depends on the
 * order in which rows stand. A free allowance is given once, a minimum counts once.
 */
export class LinePool {
  readonly drawn: readonly Drawn[]
  readonly months: number
  readonly #allowance: Working
  readonly #totals: Working[] = []
  readonly #costs: Working[] = []
  readonly #shares = new Map<string, Working>()

  constructor(
    readonly line: PriceLine,
    private readonly given: readonly Drawn[],
    useFreeAllowance: boolean,
  ) {
    const drawn = given
    this.drawn = [...drawn].sort((a, b) => (a.id < b.id ? -1 : 1))
    this.months = monthsOf(drawn)
    this.#allowance = allowanceOf(line, useFreeAllowance)
  }

  /** Whether it holds just these, in any order. */
  holds(drawn: readonly Drawn[]): boolean {
    if (drawn.length !== this.drawn.length) return false
    if (drawn.every((one, at) => one === this.given[at])) return true
    const mine = new Map(this.drawn.map(d => [d.id, d]))
    return drawn.every(d => mine.get(d.id) === d)
  }

  /** What all draw in a month. */
  total(month: number): Working {
    return (this.#totals[month] ??=
      this.drawn.length === 1
        ? inMonth(this.drawn[0]!, month)
        : add(
            'what all rows draw',
            this.drawn.map(d => inMonth(d, month)),
            this.line.unit,
          ))
  }

  /** What the line costs in a month, all rows together. */
  cost(month: number): Working {
    return (this.#costs[month] ??= priceQuantity('all rows that draw on the line', this.line, this.total(month), this.#allowance))
  }

  /** What one of those that draw bears in a month. */
  share(drawn: Drawn, month: number): Working {
    const key = `${month}\n${drawn.id}`
    const known = this.#shares.get(key)
    if (known) return known
    const made = this.#share(drawn, month)
    this.#shares.set(key, made)
    return made
  }

  #share(drawn: Drawn, month: number): Working {
    if (this.drawn.length === 1) return priceQuantity(drawn.label, this.line, inMonth(drawn, month), this.#allowance)
    const last = this.drawn.at(-1)!
    if (drawn.id === last.id)
      return subtract(`${drawn.label}, what is left of the line`, [
        this.cost(month),
        ...this.drawn.slice(0, -1).map(other => this.share(other, month)),
      ])
    // where nobody draws anything, a least charge goes with the last
    if (evaluate(this.total(month)).eq(0)) return none
    return divide(`${drawn.label}, in proportion to what is drawn`, [
      multiply('cost of the line × own quantity', [this.cost(month), inMonth(drawn, month)]),
      this.total(month),
    ])
  }

  /** What one would bear that does not draw now, or draws something else: in place of `own`, which it would no longer draw. */
  wouldBear(drawn: Drawn, instead: readonly Drawn[], own: readonly Drawn[], month: number): Working {
    const others = this.drawn.filter(d => !own.some(o => o.id === d.id))
    if (!others.length) return new LinePool(this.line, instead, evaluate(this.#allowance).gt(0)).share(drawn, month)
    const rest = own.length ? subtract('what other rows draw', [this.total(month), ...own.map(o => inMonth(o, month))]) : this.total(month)
    const total = add('what all rows would draw', [rest, ...instead.map(d => inMonth(d, month))], this.line.unit)
    if (evaluate(total).eq(0)) return none
    return divide(`${drawn.label}, in proportion to what is drawn`, [
      multiply('cost of the line × own quantity', [
        priceQuantity('all rows that would draw on the line', this.line, total, this.#allowance),
        inMonth(drawn, month),
      ]),
      total,
    ])
  }

  /** Whether a minimum raised what the line costs in the first month. */
  raised(): Raised | null {
    return raisedBy(this.line, this.total(0), this.#allowance)
  }
}

/** Pools of the lines that are shared, by line; the very pool that was made before while it holds the same. */
export function poolLines(drawn: readonly Drawn[], useFreeAllowance: boolean, known: Map<string, LinePool>): Map<string, LinePool> {
  const byLine = new Map<string, Drawn[]>()
  for (const one of drawn) {
    if (!isPooled(one.line)) continue
    const key = lineKey(one)
    const list = byLine.get(key)
    if (list) list.push(one)
    else byLine.set(key, [one])
  }
  const pools = new Map<string, LinePool>()
  for (const [key, list] of byLine) {
    const before = known.get(key)
    pools.set(
      key,
      before && before.line === list[0]!.line && before.holds(list) ? before : new LinePool(list[0]!.line, list, useFreeAllowance),
    )
  }
  return pools
}
