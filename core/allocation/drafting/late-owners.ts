import { scaled, scaledText, type Scaled } from '../../money/scaled'
import { lookupDimension } from '../../spend/dimension'
import type { Lookup } from '../../spend/lookup'
import type { CentreTree, Rule } from '../plan'

/** The lookup that says whose resources were before a tag said so. */
export const LATE_LOOKUP = 'set late'

/** Resources that nobody had in a month and that rules put on a cost centre or pool since, with what they cost in the month. */
export type LateOwner = { target: string; resources: string[]; amount: string }

/**
 * Whose resources are by now that were on nobody in a month; the most money first. One that is on several since is on none here.
 * @param unowned what they cost in the month, in one currency. @param owned where their charges are that somebody has, since then.
 */
export function lateOwners(
  unowned: readonly { resource: string | null; amount: string }[],
  owned: readonly { resource: string | null; target: string | null }[],
): LateOwner[] {
  const targets = new Map<string, Set<string>>()
  for (const { resource, target } of owned) {
    if (resource === null || target === null) continue
    targets.set(resource, (targets.get(resource) ?? new Set()).add(target))
  }
  const found = new Map<string, { resources: string[]; sum: Scaled }>()
  for (const { resource, amount } of unowned) {
    const [target, ...others] = resource === null ? [] : (targets.get(resource) ?? [])
    if (target === undefined || others.length) continue
    const own = found.get(target) ?? { resources: [], sum: 0n }
    found.set(target, own)
    own.resources.push(resource!)
    own.sum += scaled(amount)
  }
  return [...found]
    .sort(([, a], [, b]) => (a.sum === b.sum ? 0 : a.sum > b.sum ? -1 : 1))
    .map(([target, { resources, sum }]) => ({ target, resources, amount: scaledText(sum) }))
}

/** The field that says it for a tree; null for the first. */
const fieldOf = (tree: string | null) => (tree === null ? 'cost centre' : `cost centre, ${tree}`)

/** The lookup with what these say: whose each resource is, from its beginning on. What others say of other resources stays. */
export function withLateOwners(known: Lookup | null, tree: string | null, owners: readonly LateOwner[]): Lookup {
  const field = fieldOf(tree)
  const said = new Map(owners.flatMap(({ target, resources }) => resources.map(id => [id, target] as const)))
  const kept = (known?.entries ?? []).map(entry => {
    const target = said.get(entry.key)
    return target === undefined ? entry : { ...entry, values: { ...entry.values, [field]: target } }
  })
  const there = new Set(kept.map(({ key }) => key))
  const added = [...said]
    .filter(([key]) => !there.has(key))
    .map(([key, target]) => ({ key, from: null, until: null, values: { [field]: target } }))
  return { by: 'ResourceId', fields: [...new Set([...(known?.fields ?? []), field])], entries: [...kept, ...added] }
}

/** The rules that go by it, and that a tree has not yet: they stand last, so that tags have the first word. */
export function lateRules(
  { rules }: Pick<CentreTree, 'rules'>,
  tree: string | null,
  owners: readonly LateOwner[],
  newId: () => string,
): Rule[] {
  const dimension = lookupDimension(LATE_LOOKUP, fieldOf(tree))
  const has = ({ target }: LateOwner) =>
    rules.some(
      rule =>
        rule.target === target &&
        rule.conditions.some(one => 'values' in one && one.dimension === dimension && one.values.includes(target)),
    )
  return owners.filter(one => !has(one)).map(({ target }) => ({ id: newId(), conditions: [{ dimension, values: [target] }], target }))
}
