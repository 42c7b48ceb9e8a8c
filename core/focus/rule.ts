import type { FocusColumn } from './columns'

/**
 * A rule of the specification on how values of one charge go together. Rules that forbid money to mean two things are errors and stop a
 * load; the others are told and do not. Columns that a file lacks make a rule fall away when it needs them.
 */
export type Rule = {
  id: string
  says: string
  severity: 'error' | 'warning'
  since: FocusColumn['since']
  /** Columns the rule speaks of; the last is named where it is broken. */
  needs: readonly string[]
  /**
   * Those of them whose amounts it compares. Of a column that is neither enumerated nor among these it asks only whether it has a value.
   */
  amounts?: readonly string[]
  broken: (charge: RuleCharge) => boolean
}

/** A charge as rules see it: which columns have a value, what the enumerated ones say, amounts as floats (for comparing only). */
export type RuleCharge = {
  has: (column: string) => boolean
  is: (column: string, value: string) => boolean
  amount: (column: string) => number
  /** Start and end in seconds since 1970. */
  seconds: (column: 'BillingPeriodStart' | 'BillingPeriodEnd' | 'ChargePeriodStart' | 'ChargePeriodEnd') => number
}

/** What kind of charge it is: every rule may ask for it, named among its needs or not. */
export const kindColumns: readonly string[] = ['ChargeCategory', 'ChargeClass']
/** Further columns whose values rules tell apart. */
export const enumerated: readonly string[] = ['ChargeFrequency', 'CommitmentDiscountStatus', 'PricingCategory']
