import { scaled } from '../../money/scaled'
import type { Condition } from '../condition'
import { patternTest } from '../../text/pattern'
import { looksAt } from '../condition-tests'
import type { Rule } from '../plan'

/** Why a rule may not do what was meant: nothing has its tag, nothing has its values, or an earlier rule takes all that it is for. */
export type RuleDoubt =
  { kind: 'unknown-tag'; dimension: string } | { kind: 'no-value'; dimension: string; values: string[] } | { kind: 'shadowed'; by: number }

/** What the charges have. */
export type KnownValues = {
  /** Tag keys as dimensions, `Tags/KEY`. */
  tags: readonly string[]
  /** The values of a dimension; nothing while they are not known. */
  values: (dimension: string) => ReadonlySet<string | null> | undefined
}

/** Doubts about the rules of a plan, by the ids of the rules. `by` counts rules from one, as they are shown. */
export function ruleDoubts(rules: readonly Rule[], known: KnownValues): Map<string, RuleDoubt[]> {
  const found = new Map<string, RuleDoubt[]>()
  rules.forEach((rule, index) => {
    const doubts = rule.conditions.flatMap(one => conditionDoubts(one, known))
    const by = rules.findIndex((earlier, at) => at < index && takesAllOf(earlier, rule))
    if (by >= 0) doubts.push({ kind: 'shadowed', by: by + 1 })
    if (doubts.length) found.set(rule.id, doubts)
  })
  return found
}

function conditionDoubts(one: Condition, { tags, values }: KnownValues): RuleDoubt[] {
  if (!looksAt(one)) return []
  const { dimension } = one
  if (dimension.startsWith('Tags/') && !tags.includes(dimension)) return [{ kind: 'unknown-tag', dimension }]
  const there = values(dimension)
  if (!there) return []
  if ('pattern' in one) {
    const fits = patternTest(one.pattern)
    return [...there].some(value => fits(value?.toLowerCase() ?? null)) ? [] : [{ kind: 'no-value', dimension, values: [one.pattern] }]
  }
  const missing = one.values.filter((value): value is string => value !== null && !there.has(value))
  return missing.length ? [{ kind: 'no-value', dimension, values: missing }] : []
}

/** Whether an earlier rule catches all that a later one could: it holds on all of its days, and each of its conditions follows. */
function takesAllOf(earlier: Rule, later: Rule): boolean {
  const begins = !earlier.from || (!!later.from && earlier.from <= later.from)
  const ends = !earlier.until || (!!later.until && earlier.until >= later.until)
  return begins && ends && earlier.conditions.every(wide => later.conditions.some(narrow => follows(narrow, wide)))
}

function follows(narrow: Condition, wide: Condition): boolean {
  if (!looksAt(wide) || !looksAt(narrow)) {
    if (looksAt(wide) || looksAt(narrow) || wide.measure !== narrow.measure) return false
    const least = wide.atLeast === undefined || (narrow.atLeast !== undefined && scaled(narrow.atLeast) >= scaled(wide.atLeast))
    const most = wide.below === undefined || (narrow.below !== undefined && scaled(narrow.below) <= scaled(wide.below))
    return least && most
  }
  if (wide.dimension !== narrow.dimension) return false
  if ('pattern' in wide) {
    if ('pattern' in narrow) return narrow.pattern.toLowerCase() === wide.pattern.toLowerCase()
    const fits = patternTest(wide.pattern)
    return narrow.values.every(value => fits(value?.toLowerCase() ?? null))
  }
  return 'values' in narrow && narrow.values.every(value => wide.values.includes(value))
}
