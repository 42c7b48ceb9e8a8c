import { minorDecimals } from '../money/currency'
import { scaled as toScaled, scaledText, type Scaled } from '../money/scaled'
import { firstMatch, type DimensionValues } from './match'
import type { AllocationPlan } from './plan'
import { poolMethods } from './pools'

/** Charges of one billing month that share all their values: what rules look at, and what statements and the queue name. */
export type ChargeCell = { values: DimensionValues; currency: string; amount: Scaled; count: number }

export type StatementLine =
  | { kind: 'direct'; service: string; amount: string }
  | { kind: 'share'; pool: string; label: string; amount: string; ofPool: string; note: string | null }

/** A cost centre's own month in one currency; centres below it are not in it. */
export type Statement = { centre: string; currency: string; direct: string; shared: string; total: string; lines: StatementLine[] }

export type RuleCatch = { rule: string; currency: string; amount: string; count: number }
export type PoolAmount = { pool: string; currency: string; amount: string }

/** Charges that no rule has caught, together because they look alike to the rules. */
export type UnallocatedGroup = { values: DimensionValues; currency: string; amount: string; resources: number; count: number }

export type ProofLine = { currency: string; bill: string; direct: string; shared: string; unallocated: string; equal: boolean }

export type Settlement = {
  /** By currency, the largest total first. */
  statements: Statement[]
  catches: RuleCatch[]
  pools: PoolAmount[]
  unallocated: UnallocatedGroup[]
  proof: ProofLine[]
  /** Where the money of the pools came from and went, by provider: for the picture. */
  flows: { provider: string | null; target: string | null; currency: string; amount: string }[]
}

/** Dimensions that a settlement needs beside those its rules look at. */
export const settlementDimensions = ['ProviderName', 'SubAccountName', 'ServiceName', 'ResourceId'] as const

class Sums {
  #sums = new Map<string, Scaled>()
  add(amount: Scaled, ...key: (string | null)[]): void {
    const id = JSON.stringify(key)
    this.#sums.set(id, (this.#sums.get(id) ?? 0n) + amount)
  }

  get(...key: (string | null)[]): Scaled {
    return this.#sums.get(JSON.stringify(key)) ?? 0n
  }

  entries(): { key: (string | null)[]; amount: Scaled }[] {
    return [...this.#sums].map(([id, amount]) => ({ key: JSON.parse(id) as (string | null)[], amount }))
  }
}

const largestFirst = <T extends { amount: string }>(list: T[]) => list.sort((a, b) => Number(b.amount) - Number(a.amount))

/**
 * Puts a billing month's charges on cost centres: each charge lands by the first rule that matches; what lands on a pool is divided
 * among the centres that have direct cost; what no rule catches stays in the queue.
 * @param cells every charge of the month once, grouped at least by the dimensions of the rules.
 * @param bill the month's totals, summed from the charges on their own: what the statements are held against.
 */
export function settle(
  plan: AllocationPlan,
  cells: ChargeCell[],
  bill: { currency: string; amount: Scaled }[],
  ruleDimensions: readonly string[],
): Settlement {
  const pools = new Map(plan.pools.map(pool => [pool.id, pool]))
  const direct = new Sums() // centre, currency
  const byService = new Sums() // centre, currency, service
  const pooled = new Sums() // pool, currency
  const caught = new Sums() // rule, currency
  const caughtCounts = new Map<string, number>()
  const flows = new Sums() // provider, target, currency
  const queue = new Map<string, { values: DimensionValues; currency: string; amount: Scaled; resources: Set<string>; count: number }>()

  for (const { values, currency, amount, count } of cells) {
    const rule = firstMatch(plan, values)
    flows.add(amount, values.ProviderName ?? null, rule?.target ?? null, currency)
    if (!rule) {
      const alike = Object.fromEntries([...new Set(['SubAccountName', ...ruleDimensions])].map(d => [d, values[d] ?? null]))
      const key = JSON.stringify([currency, alike])
      const group = queue.get(key) ?? { values: alike, currency, amount: 0n, resources: new Set<string>(), count: 0 }
      group.amount += amount
      group.count += count
      if (values.ResourceId) group.resources.add(values.ResourceId)
      queue.set(key, group)
      continue
    }
    caught.add(amount, rule.id, currency)
    caughtCounts.set(`${rule.id} ${currency}`, (caughtCounts.get(`${rule.id} ${currency}`) ?? 0) + count)
    if (pools.has(rule.target)) pooled.add(amount, rule.target, currency)
    else {
      direct.add(amount, rule.target, currency)
      byService.add(amount, rule.target, currency, values.ServiceName ?? null)
    }
  }

  const shares: { centre: string; currency: string; line: Extract<StatementLine, { kind: 'share' }>; amount: Scaled }[] = []
  for (const {
    key: [pool, currency],
    amount,
  } of pooled.entries()) {
    const { name, method } = pools.get(pool!)!
    const basis = direct
      .entries()
      .filter(({ key }) => key[1] === currency)
      .map(({ key, amount }) => ({ centre: key[0]!, direct: amount }))
      .sort((a, b) => (a.centre < b.centre ? -1 : 1))
    const everyone = basis.length ? basis : plan.centres.map(({ id }) => ({ centre: id, direct: 0n }))
    const { label, divide } = poolMethods[method]!
    const division = divide(amount, everyone, minorDecimals(currency!))
    for (const share of division.shares) {
      const line = {
        kind: 'share' as const,
        pool: name,
        label,
        amount: scaledText(share.amount),
        ofPool: scaledText(amount),
        note: division.fellBackToEven && `divided evenly: ${division.fellBackToEven}`,
      }
      shares.push({ centre: share.centre, currency: currency!, line, amount: share.amount })
    }
  }

  const keys = [
    ...new Set([
      ...direct.entries().map(({ key }) => JSON.stringify(key)),
      ...shares.map(({ centre, currency }) => JSON.stringify([centre, currency])),
    ]),
  ]
  const statements = keys
    .map((id): Statement => {
      const [centre, currency] = JSON.parse(id) as [string, string]
      const own = shares.filter(share => share.centre === centre && share.currency === currency)
      const shared = own.reduce((total, share) => total + share.amount, 0n)
      const services = byService.entries().filter(({ key }) => key[0] === centre && key[1] === currency)
      return {
        centre,
        currency,
        direct: scaledText(direct.get(centre, currency)),
        shared: scaledText(shared),
        total: scaledText(direct.get(centre, currency) + shared),
        lines: [
          ...largestFirst(
            services.map(({ key, amount }): StatementLine => ({
              kind: 'direct',
              service: key[2] ?? 'no service',
              amount: scaledText(amount),
            })),
          ),
          ...own.map(({ line }) => line),
        ],
      }
    })
    .sort((a, b) =>
      a.currency === b.currency ? Number(b.total) - Number(a.total) || (a.centre < b.centre ? -1 : 1) : a.currency < b.currency ? -1 : 1,
    )

  return {
    statements,
    catches: caught
      .entries()
      .map(({ key: [rule, currency], amount }) => ({
        rule: rule!,
        currency: currency!,
        amount: scaledText(amount),
        count: caughtCounts.get(`${rule} ${currency}`)!,
      })),
    pools: pooled.entries().map(({ key: [pool, currency], amount }) => ({ pool: pool!, currency: currency!, amount: scaledText(amount) })),
    unallocated: largestFirst(
      [...queue.values()].map(({ values, currency, amount, resources, count }) => ({
        values,
        currency,
        amount: scaledText(amount),
        resources: resources.size,
        count,
      })),
    ),
    proof: prove(statements, [...queue.values()], bill),
    flows: flows
      .entries()
      .map(({ key: [provider, target, currency], amount }) => ({
        provider: provider!,
        target: target!,
        currency: currency!,
        amount: scaledText(amount),
      })),
  }
}

/**
 * Bill = direct + shared out + unallocated, per currency: the left side from the charges, the right side from the lines of the statements.
 */
function prove(
  statements: Statement[],
  unallocated: { currency: string; amount: Scaled }[],
  bill: { currency: string; amount: Scaled }[],
): ProofLine[] {
  const parts = new Map<string, { direct: Scaled; shared: Scaled }>()
  for (const { currency, lines } of statements) {
    const part = parts.get(currency) ?? { direct: 0n, shared: 0n }
    for (const line of lines) part[line.kind === 'direct' ? 'direct' : 'shared'] += toScaled(line.amount)
    parts.set(currency, part)
  }
  const currencies = [...new Set([...bill.map(b => b.currency), ...parts.keys(), ...unallocated.map(u => u.currency)])].sort()
  return currencies.map(currency => {
    const billed = bill.filter(b => b.currency === currency).reduce((n, b) => n + b.amount, 0n)
    const { direct, shared } = parts.get(currency) ?? { direct: 0n, shared: 0n }
    const left = unallocated.filter(u => u.currency === currency).reduce((n, u) => n + u.amount, 0n)
    return {
      currency,
      bill: scaledText(billed),
      direct: scaledText(direct),
      shared: scaledText(shared),
      unallocated: scaledText(left),
      equal: billed === direct + shared + left,
    }
  })
}
