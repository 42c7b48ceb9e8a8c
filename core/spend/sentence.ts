import type { Grain } from '../time/grain'
import type { Period } from '../time/period'
import type { Condition, Measure, Narrowing } from './question'
import type { TableColumn } from './table'

export const charts = ['columns', 'grouped', 'lines', 'area', 'running', 'share', 'multiples'] as const
export type ChartKind = (typeof charts)[number]

/** Periods that roll on with the data: a saved sentence keeps them. */
export const rollingPeriods = [
  'this-month',
  'last-month',
  'last-7',
  'last-30',
  'last-90',
  'three-months',
  'six-months',
  'twelve-months',
  'this-year',
  'all',
] as const
export type RollingPeriod = (typeof rollingPeriods)[number]

/** One chosen value in the Steps. */
export type Step = { dimension: string; value: string | null }

/** What the Sentence says and the address holds. */
export type Sentence = {
  measure: Measure
  splitBy: string[]
  grain: Grain
  /** A rolling period's name, or a fixed period. */
  period: RollingPeriod | Period
  /** What it is held against: the period before, the same a year before, or a chosen one. */
  against: 'before' | 'year' | Period
  keep: Narrowing
  leaveOut: Narrowing
  conditions: Condition[]
  /** The currency (or unit) looked at, where there are several. */
  currency: string | null
  /** One currency for all costs. */
  reportCurrency: string | null
  chart: ChartKind
  /** So many values the chart shows by themselves. */
  largest: number
  steps: Step[]
  /** Dimensions of the Steps' columns, in order. */
  stepOrder: string[]
  /** Which of the Steps' columns show quantity. */
  stepQuantity: number[]
  /** What runs across the table: `start` for time, a dimension, or nothing. */
  across: string | null
  columns: TableColumn[]
  /** The table, or the comparison of two periods. */
  show: 'table' | 'comparison'
  /** Whether charges stand in time by charge or by billing periods. */
  basis: 'charge' | 'billing'
}

/** The order in which practitioners narrow; price parts come last, by themselves. */
export const usualStepOrder = ['SubAccountName', 'ServiceName', 'SkuMeter', 'ResourceId'] as const
export const USUAL_LARGEST = 7
export const MOST_SPLITS = 4

/** The narrowing with one more value; the same value leaves the other list. */
export function withValue(narrowing: Narrowing, dimension: string, value: string | null): Narrowing {
  const values = narrowing[dimension] ?? []
  return values.includes(value) ? narrowing : { ...narrowing, [dimension]: [...values, value] }
}

export function withoutValue(narrowing: Narrowing, dimension: string, value: string | null): Narrowing {
  const values = (narrowing[dimension] ?? []).filter(v => v !== value)
  const { [dimension]: _, ...others } = narrowing
  return values.length ? { ...others, [dimension]: values } : others
}

/** What is kept, the steps taken included. */
export function keptWithSteps({ keep, steps }: Pick<Sentence, 'keep' | 'steps'>): Narrowing {
  return steps.reduce<Narrowing>((kept, { dimension, value }) => ({ ...kept, [dimension]: [value] }), keep)
}
