import type { z } from 'zod'
import type { Condition } from '../condition'
import type { Among } from './pool-base'

/** What a pool is divided by, as far as it has to be found out: each way to divide declares the one it needs. */
export type Needs =
  /** What cost centres have directly, of some services or (null) all. */
  | { basis: 'direct cost'; services: readonly string[] | null }
  /** One part for each cost centre. */
  | { basis: 'even' }
  /** Weights that are written down, by cost centre or pool; decimal text. */
  | { basis: 'weights'; weights: Readonly<Record<string, string>> }
  /** A quantity of the charges that conditions leave, by the cost centre they are on; only what is measured in one unit. */
  | { basis: 'quantity'; measure: QuantityMeasure; unit: string; conditions: readonly Condition[] }
  /** What a lookup says of each cost centre on the month's last day, by its id. */
  | { basis: 'lookup'; lookup: string; field: string }
  /** What a business measure counts for each cost centre in the month. */
  | { basis: 'measure'; measure: string }
export type QuantityMeasure = 'pricingQuantity' | 'consumedQuantity'

/** One way to divide a pool among cost centres, or further pools. */
export type PoolMethod<Name extends string = string, Given extends PoolBase = PoolBase> = {
  method: Name
  /** The pool as a plan writes it. */
  schema: z.ZodType<Given>
  /** What a list of ways to divide calls it. */
  title: string
  /** A pool that is divided so from now on; what all pools have stays as it was. */
  begin: (base: Omit<PoolBase, 'method'>, lookups: KnownLookups, measures: readonly string[]) => Given
  /** In words, for statements. */
  label: (pool: Given) => string
  needs: (pool: Given) => Needs
}
export type PoolBase = { id: string; name: string; method: string; owner?: string | null | undefined; among?: Among | undefined }
/** The lookups that there are, with their fields. */
export type KnownLookups = readonly { name: string; fields: readonly string[] }[]
