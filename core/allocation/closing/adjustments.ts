import { scaled, scaledText, sizeOf, type Scaled } from '../../money/scaled'
import { centresWithin } from '../tree'
import type { CostCentre } from '../plan'
import type { Settlement } from '../settle'
import type { StatementLine } from '../statement'

/** Why a closed month would come out otherwise now: its charges are others, or its rules (with what they look at) are. */
export type AdjustmentCause = 'charges' | 'rules'

/** What it is made of: cost of a service that lies on the cost centre, a share of a pool, or what lies on none. */
export type AdjustmentLine =
  | { kind: 'direct'; service: string | null; amount: string }
  | { kind: 'share'; pool: string; poolId: string; amount: string }
  | { kind: 'unallocated'; amount: string }

/**
 * What a cost centre (null: what is unallocated) bears more or less of a month that is closed. Its lines add up to it; an amount of zero
 * has lines that weigh each other out.
 */
export type Adjustment = {
  /** The closed month. */
  month: string
  centre: string | null
  currency: string
  cause: AdjustmentCause
  amount: string
  lines: AdjustmentLine[]
}

/** What of a settlement can be adjusted. */
export type Adjustable = Pick<Settlement, 'statements'> & { unallocated: readonly { currency: string; amount: string }[] }

type Unsigned<Line> = Line extends unknown ? Omit<Line, 'amount'> : never
type Bearer = Pick<Adjustment, 'month' | 'centre' | 'currency' | 'cause'>
type Sum = { bearer: Bearer; lines: Map<string, { line: Unsigned<AdjustmentLine>; sum: Scaled }> }

/** Sums by who bears what, whatever they come from. */
class Ledger {
  readonly #sums = new Map<string, Sum>()

  add(bearer: Bearer, line: AdjustmentLine, sign: bigint): void {
    const { month, centre, currency, cause } = bearer
    const key = JSON.stringify([month, centre, currency, cause])
    const known = this.#sums.get(key)
    const own = known ?? { bearer: { month, centre, currency, cause }, lines: new Map() }
    if (!known) this.#sums.set(key, own)
    const { amount, ...rest } = line
    // a pool is the same by its id, whatever it is called now
    const lineKey = JSON.stringify(
      line.kind === 'share' ? [line.kind, line.poolId] : line.kind === 'direct' ? [line.kind, line.service] : [],
    )
    const before = own.lines.get(lineKey)
    if (before) before.sum += sign * scaled(amount)
    else own.lines.set(lineKey, { line: rest as Unsigned<AdjustmentLine>, sum: sign * scaled(amount) })
  }

  /** What is not nothing, the largest first. */
  adjustments(): Adjustment[] {
    return [...this.#sums.values()]
      .flatMap(({ bearer, lines }) => {
        const left = [...lines.values()].filter(({ sum }) => sum !== 0n).sort((a, b) => bySize(a.sum, b.sum))
        if (!left.length) return []
        const amount = left.reduce((sum, line) => sum + line.sum, 0n)
        const asLine = ({ line, sum }: (typeof left)[number]) => ({ ...line, amount: scaledText(sum) }) as AdjustmentLine
        return [{ amount, adjustment: { ...bearer, amount: scaledText(amount), lines: left.map(asLine) } }]
      })
      .sort((a, b) => bySize(a.amount, b.amount))
      .map(({ adjustment }) => adjustment)
  }
}

/** The largest first, whatever its sign; equal ones stay as they come. */
const bySize = (a: Scaled, b: Scaled) => (sizeOf(a) === sizeOf(b) ? 0 : sizeOf(a) > sizeOf(b) ? -1 : 1)

function addSettled(ledger: Ledger, { statements, unallocated }: Adjustable, of: Pick<Bearer, 'month' | 'cause'>, sign: bigint): void {
  for (const { centre, currency, lines } of statements)
    for (const line of lines) ledger.add({ ...of, centre, currency }, lineOf(line), sign)
  for (const { currency, amount } of unallocated) ledger.add({ ...of, centre: null, currency }, { kind: 'unallocated', amount }, sign)
}

const lineOf = (line: StatementLine): AdjustmentLine =>
  line.kind === 'direct'
    ? { kind: 'direct', service: line.service, amount: line.amount }
    : { kind: 'share', pool: line.pool, poolId: line.poolId, amount: line.amount }

/** A closed month as it is now: under the rules that it was closed with, and under those that hold for it since. */
export type ClosedMonthNow = {
  month: string
  /** As it was closed. */
  kept: Adjustable
  /** Its charges of today under the rules of then; null where they are the same. */
  charges: Adjustable | null
  /** Its charges of today under the rules that hold for it now; null where they are the same. */
  rules: Adjustable | null
  /** What months closed since have carried of it already. */
  posted: readonly Adjustment[]
}

/**
 * What is left to adjust of a closed month: by cost centre, currency and cause. As it was closed + what was posted + what is left is the
 * month as it is now, line by line.
 */
export function adjustmentsLeft({ month, kept, charges, rules, posted }: ClosedMonthNow): Adjustment[] {
  const ledger = new Ledger()
  const byCharges = charges ?? kept
  if (charges) {
    addSettled(ledger, charges, { month, cause: 'charges' }, 1n)
    addSettled(ledger, kept, { month, cause: 'charges' }, -1n)
  }
  if (rules) {
    addSettled(ledger, rules, { month, cause: 'rules' }, 1n)
    addSettled(ledger, byCharges, { month, cause: 'rules' }, -1n)
  }
  for (const { lines, ...bearer } of posted) {
    if (bearer.month !== month) continue
    for (const line of lines) ledger.add(bearer, line, -1n)
  }
  return ledger.adjustments()
}

/** What a cost centre is adjusted by together with all below it: an entry for each month, currency and cause. */
export function adjustmentsBelow(centres: readonly CostCentre[], adjustments: readonly Adjustment[], top: string): Adjustment[] {
  const within = centresWithin(centres, { centres: [top] })
  const ledger = new Ledger()
  for (const { lines, ...bearer } of adjustments) {
    if (bearer.centre === null || !within.has(bearer.centre)) continue
    for (const line of lines) ledger.add({ ...bearer, centre: top }, line, 1n)
  }
  return ledger.adjustments()
}

/** What adjustments come to in a currency: on cost centres, and on none. */
export function adjustedSums(adjustments: readonly Adjustment[], currency: string): { borne: string; unallocated: string } {
  const sumOf = (isMeant: (centre: string | null) => boolean) =>
    scaledText(adjustments.reduce((sum, one) => (one.currency === currency && isMeant(one.centre) ? sum + scaled(one.amount) : sum), 0n))
  return { borne: sumOf(centre => centre !== null), unallocated: sumOf(centre => centre === null) }
}
