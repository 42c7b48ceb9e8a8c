import { Decimal, decimalText } from '../money/decimal'
import { scaled, scaledText, sumOfTexts, type Scaled } from '../money/scaled'
import { inSizeOrder, type Caught } from './caught'
import { poolLabel } from './pools'
import type { Share } from './share-out'

export type StatementLine =
  /** What lies on it by itself; a service of null is what has none. */
  | { kind: 'direct'; service: string | null; amount: string }
  /** What is borne of a pool; of how much, by which part of the base, and what is to be said of it, where that is for whoever looks. */
  | {
      kind: 'share'
      pool: string
      poolId: string
      label: string
      amount: string
      ofPool: string | null
      /** Nothing where a month was closed before it was kept. */
      base?: StatementBase | null | undefined
      note: string | null
    }

/** By what a share came about: what all cost centres bear of the pool, and the part of the base that this one has, of all of theirs. */
export type StatementBase = { borne: string; part: string; of: string; unit: string }

/** A cost centre's own month in one currency; centres below it are not in it. */
export type Statement = { centre: string; currency: string; direct: string; shared: string; total: string; lines: StatementLine[] }

/** The statements of a month, by currency, the largest total first. */
export function statementsOf({ direct, services }: Caught, shares: readonly Share[]): Statement[] {
  const made = new Map<string, { centre: string; currency: string; direct: Scaled; shares: Share[] }>()
  const at = (centre: string, currency: string) => {
    const key = JSON.stringify([centre, currency])
    const known = made.get(key)
    if (known) return known
    const own = { centre, currency, direct: 0n, shares: [] as Share[] }
    made.set(key, own)
    return own
  }
  for (const [centre, sums] of direct.sums) for (const [currency, amount] of sums) at(centre, currency).direct += amount
  for (const share of shares) at(share.centre, share.currency).shares.push(share)
  return [...made.values()]
    .map(({ centre, currency, direct, shares }): Statement => {
      const shared = shares.reduce((sum, { amount }) => sum + amount, 0n)
      const lines = [...(services.get(centre) ?? [])].flatMap(([service, sums]): StatementLine[] => {
        const amount = sums.get(currency)
        return amount === undefined ? [] : [{ kind: 'direct', service, amount: scaledText(amount) }]
      })
      return {
        centre,
        currency,
        direct: scaledText(direct),
        shared: scaledText(shared),
        total: scaledText(direct + shared),
        lines: [...inSizeOrder(lines), ...shares.map(shareLine)],
      }
    })
    .sort((a, b) =>
      a.currency === b.currency ? Number(b.total) - Number(a.total) || (a.centre < b.centre ? -1 : 1) : a.currency < b.currency ? -1 : 1,
    )
}

/** What statements have together, by currency, the largest total first. */
export function borneOf(statements: readonly Statement[]): { currency: string; direct: string; shared: string; total: string }[] {
  const sums = new Map<string, { direct: Scaled; shared: Scaled; total: Scaled }>()
  for (const { currency, direct, shared, total } of statements) {
    const own = sums.get(currency) ?? { direct: 0n, shared: 0n, total: 0n }
    sums.set(currency, own)
    own.direct += scaled(direct)
    own.shared += scaled(shared)
    own.total += scaled(total)
  }
  return [...sums]
    .sort(([a, { total: one }], [b, { total: other }]) => (one === other ? (a < b ? -1 : 1) : one > other ? -1 : 1))
    .map(([currency, { direct, shared, total }]) => ({
      ...{ currency, direct: scaledText(direct), shared: scaledText(shared), total: scaledText(total) },
    }))
}

const shareLine = ({ pool, amount, ofPool, base, note }: Share): StatementLine => ({
  ...{ kind: 'share', pool: pool.name, poolId: pool.id, label: poolLabel(pool), amount: scaledText(amount), ofPool: scaledText(ofPool) },
  base: { borne: scaledText(base.borne), part: weightText(base.weight, base), of: weightText(base.of, base), unit: base.unit },
  note,
})

const weightText = (weight: bigint, { decimals }: Pick<Share['base'], 'decimals'>) => decimalText(new Decimal(`${weight}e-${decimals}`))

export type ProofLine = { currency: string; bill: string; direct: string; shared: string; unallocated: string; equal: boolean }

/**
 * Bill = direct + shared out + unallocated, per currency: the left side from the charges, the right side from the lines of the statements.
 */
export function prove(
  statements: readonly Statement[],
  unallocated: readonly { currency: string; amount: string }[],
  bill: readonly { currency: string; amount: string }[],
): ProofLine[] {
  const sides = new Map<string, { bill: Scaled; direct: Scaled; shared: Scaled; unallocated: Scaled }>()
  const add = (side: 'bill' | 'direct' | 'shared' | 'unallocated', amounts: readonly { currency: string; amount: string }[]) => {
    const texts = new Map<string, string[]>()
    for (const { currency, amount } of amounts) void (texts.get(currency)?.push(amount) ?? texts.set(currency, [amount]))
    for (const [currency, own] of texts) {
      const known = sides.get(currency) ?? { bill: 0n, direct: 0n, shared: 0n, unallocated: 0n }
      sides.set(currency, { ...known, [side]: known[side] + sumOfTexts(own) })
    }
  }
  add('bill', bill)
  for (const { currency, lines } of statements)
    for (const side of ['direct', 'shared'] as const)
      add(
        side,
        lines.filter(({ kind }) => (kind === 'direct') === (side === 'direct')).map(({ amount }) => ({ currency, amount })),
      )
  add('unallocated', unallocated)
  return [...sides]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([currency, { bill, direct, shared, unallocated }]) => ({
      currency,
      bill: scaledText(bill),
      direct: scaledText(direct),
      shared: scaledText(shared),
      unallocated: scaledText(unallocated),
      equal: bill === direct + shared + unallocated,
    }))
}
