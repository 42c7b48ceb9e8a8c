import type { Scaled } from '../../money/scaled'

/** What a cost centre has, to divide a pool by. */
export type Basis = { centre: string; direct: Scaled }
export type Share = { centre: string; amount: Scaled }

/** How a pool is divided: the parts and, where the basis could not be used, why they are even. */
export type Division = { shares: Share[]; fellBackToEven: string | null }

/** One way to divide a pool among cost centres. */
export type PoolMethod = {
  method: string
  /** In words, for statements. */
  label: string
  divide: (amount: Scaled, basis: Basis[], currencyDecimals: number) => Division
}
