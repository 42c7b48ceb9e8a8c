import { scaled, scaledText, sizeOf, type Scaled } from '../money/scaled'
import type { AllocationPlan, CentreTree } from './plan'
import { conditionsWords } from './rule-words'

/** What two states of a list differ in, each thing by its name; `fields` are those that are not the same. */
export type ListDifference = { added: string[]; changed: { name: string; fields: string[] }[]; removed: string[] }
/** `moved` where rules that both have stand in another order: the first match wins. */
export type TreeDifference = {
  centres: ListDifference
  pools: ListDifference
  rules: ListDifference & { moved: boolean }
  /** Whether pools that serve each other are settled by another method, or by step-down in another order. */
  serving: boolean
}
/** Differences of the first tree, and of further ones by their ids; `renamed` where it is called otherwise now. */
export type PlanDifference = { tree: TreeDifference; trees: ({ id: string; renamed: boolean } & TreeDifference)[] }

type Thing = { id: string }

/** Things are the same by their ids; what is not said and what is null are the same. */
export function listDifference<T extends Thing>(before: readonly T[], after: readonly T[], nameOf: (thing: T) => string): ListDifference {
  const old = new Map(before.map(thing => [thing.id, thing]))
  const now = new Map(after.map(thing => [thing.id, thing]))
  return {
    added: after.filter(({ id }) => !old.has(id)).map(nameOf),
    removed: before.filter(({ id }) => !now.has(id)).map(nameOf),
    changed: after.flatMap(thing => {
      const then = old.get(thing.id)
      const fields = then ? unlikeFields(then, thing) : []
      return fields.length ? [{ name: nameOf(thing), fields }] : []
    }),
  }
}

function unlikeFields(a: object, b: object): string[] {
  const [one, other] = [a, b] as Record<string, unknown>[]
  const names = [...new Set([...Object.keys(a), ...Object.keys(b)])].sort()
  return names.filter(name => ordered(one![name]) !== ordered(other![name]))
}

/** A value as text in which the order of keys says nothing. */
const ordered = (value: unknown): string =>
  JSON.stringify(value ?? null, (_, part: unknown) =>
    part !== null && typeof part === 'object' && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1)))
      : part,
  )

function treeDifference(before: CentreTree, after: CentreTree): TreeDifference {
  const nameIn = (tree: CentreTree, id: string) => [...tree.centres, ...tree.pools].find(one => one.id === id)?.name ?? id
  const named = ({ name }: { name: string }) => name
  const rules = listDifference(before.rules, after.rules, rule => {
    return `${conditionsWords(rule)} → ${nameIn(after.rules.includes(rule) ? after : before, rule.target)}`
  })
  const common = (tree: CentreTree, other: CentreTree) => {
    const ids = new Set(other.rules.map(({ id }) => id))
    return tree.rules.flatMap(({ id }) => (ids.has(id) ? [id] : [])).join('\n')
  }
  return {
    centres: listDifference(before.centres, after.centres, named),
    pools: listDifference(before.pools, after.pools, named),
    rules: { ...rules, moved: common(before, after) !== common(after, before) },
    serving: servedBy(before) !== servedBy(after),
  }
}

const servedBy = ({ serving, pools }: CentreTree) =>
  JSON.stringify([serving ?? null, serving === 'step-down' ? pools.map(({ id }) => id) : []])

const nothing: CentreTree = { centres: [], pools: [], rules: [] }

/** What one plan has that another has not, tree by tree. */
export function planDifference(before: AllocationPlan, after: AllocationPlan): PlanDifference {
  const ids = [...new Set([...(before.trees ?? []), ...(after.trees ?? [])].map(({ id }) => id))]
  const trees = ids.map(id => {
    const [old, now] = [before, after].map(({ trees }) => trees?.find(tree => tree.id === id))
    return { id, renamed: !!old && !!now && old.name !== now.name, ...treeDifference(old ?? nothing, now ?? nothing) }
  })
  return { tree: treeDifference(before, after), trees: trees.filter(one => one.renamed || !isSame(one)) }
}

const isEmpty = ({ added, changed, removed }: ListDifference) => !added.length && !changed.length && !removed.length
const isSame = ({ centres, pools, rules, serving }: TreeDifference) =>
  isEmpty(centres) && isEmpty(pools) && isEmpty(rules) && !rules.moved && !serving

/** Whether two plans are the same. */
export const isSamePlan = ({ tree, trees }: PlanDifference): boolean => isSame(tree) && !trees.length

/** Differences in a line: how much of what is added, changed and removed; of people where they are given. */
export function differenceWords({ tree, trees }: PlanDifference, people?: ListDifference): string {
  const of = ({ centres, pools, rules, serving }: TreeDifference, more: [one: string, many: string, list: ListDifference][] = []) => {
    const lists = [...more, ['cost centre', 'cost centres', centres], ['pool', 'pools', pools], ['rule', 'rules', rules]] as typeof more
    const counted = (['added', 'changed', 'removed'] as const).flatMap(what => {
      const parts = lists.flatMap(
        ([
          one,
          many,
          {
            [what]: { length },
          },
        ]) => (length ? [`${length} ${length === 1 ? one : many}`] : []),
      )
      return parts.length ? [`${parts.join(', ')} ${what}`] : []
    })
    return [...counted, ...(rules.moved ? ['rules in another order'] : []), ...(serving ? ['pools settled otherwise'] : [])]
  }
  const others = trees.map(one => `tree «${one.id}»: ${[...(one.renamed ? ['another name'] : []), ...of(one)].join(', ')}`)
  return [...of(tree, people && [['person', 'people', people]]), ...others].join('; ') || 'nothing differs'
}

type Settled = {
  statements: readonly { centre: string; currency: string; total: string }[]
  unallocated: readonly { currency: string; amount: string }[]
}
/** What a cost centre bears more or less; null for what is unallocated. */
export type Effect = { centre: string | null; currency: string; difference: string }

/** What moves in a month between two settlements of the same charges, the largest first; all effects of a currency add up to nothing. */
export function settlementEffects(before: Settled, after: Settled): Effect[] {
  const sums = new Map<string, { centre: string | null; currency: string; sum: Scaled }>()
  const add = (centre: string | null, currency: string, amount: Scaled) => {
    const key = JSON.stringify([centre, currency])
    const known = sums.get(key)
    if (known) known.sum += amount
    else sums.set(key, { centre, currency, sum: amount })
  }
  for (const [settled, sign] of [
    [before, -1n],
    [after, 1n],
  ] as const) {
    for (const { centre, currency, total } of settled.statements) add(centre, currency, sign * scaled(total))
    for (const { currency, amount } of settled.unallocated) add(null, currency, sign * scaled(amount))
  }
  return [...sums.values()]
    .filter(({ sum }) => sum !== 0n)
    .sort((a, b) => Number(sizeOf(b.sum) > sizeOf(a.sum)) - Number(sizeOf(a.sum) > sizeOf(b.sum)))
    .map(({ centre, currency, sum }) => ({ centre, currency, difference: scaledText(sum) }))
}
