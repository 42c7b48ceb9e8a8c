import { parseScaled } from '../money/scaled'
import { highLimb } from '../money/limbs'
import { amountOf, type Segment } from '../spend/segment'
import { headOf, patternTest } from '../text/pattern'
import type { AmountCondition, Condition, PatternCondition, ValueCondition } from './condition'

/** A condition on a dimension. */
export type Looks = ValueCondition | PatternCondition
export const looksAt = (one: Condition): one is Looks => 'dimension' in one

/** Whether a value meets a condition. `head` is what its small letters have to begin with; nothing where that is not said. */
export type ValueTest = { head: string; holds: (value: string | null, lower: string | null) => boolean }

/** The test of a condition. `lower` is the value in small letters, made once for many conditions. */
export function valueTest(one: Looks): ValueTest {
  if ('pattern' in one) {
    const fits = patternTest(one.pattern)
    return { head: headOf(one.pattern), holds: (_value, lower) => fits(lower) }
  }
  const wanted = new Set(one.values)
  return { head: '', holds: value => wanted.has(value) }
}

/** All of several tests. */
export function allOf(tests: readonly ValueTest[]): ValueTest {
  const [only, another] = tests
  if (only && !another) return only
  const head = tests.reduce((longest, own) => (own.head.length > longest.length ? own.head : longest), '')
  return { head, holds: (value, lower) => tests.every(({ holds }) => holds(value, lower)) }
}

/** Whether the amounts of a charge hold against the conditions on them; null where there are none. */
export function amountTest(conditions: readonly Condition[]): ((segment: Segment, row: number) => boolean) | null {
  const tests = conditions.filter((one): one is AmountCondition => !looksAt(one)).map(boundsTest)
  const [only, another] = tests
  if (!only) return null
  if (!another) return only
  return (segment, row) => tests.every(test => test(segment, row))
}

function boundsTest({ measure, atLeast, below }: AmountCondition): (segment: Segment, row: number) => boolean {
  const least = atLeast === undefined ? null : parseScaled(atLeast)!.value
  const most = below === undefined ? null : parseScaled(below)!.value
  // the first limb decides but for amounts next to a bound
  const leastHigh = least === null ? -Infinity : highLimb(least)
  const mostHigh = most === null ? Infinity : highLimb(most)
  return ({ measures: { [measure]: column } }, row) => {
    const high = column.high[row]!
    if (!column.beyond && Math.abs(high - leastHigh) > 1 && Math.abs(high - mostHigh) > 1) return high > leastHigh && high < mostHigh
    const amount = amountOf(column, row)
    return (least === null || amount >= least) && (most === null || amount < most)
  }
}
