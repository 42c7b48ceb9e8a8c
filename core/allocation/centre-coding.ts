import { columnCoding } from '../spend/coded-column'
import type { Coding } from '../spend/layers'
import { catcherOf, type Catcher } from './catch'
import { treeOf, type AllocationPlan, type CentreTree } from './plan'

type Codings = (dimension: string) => Coding

/** The plans that say whose charges are: the newest, and for months that are closed the one that they were closed under. */
export type Plans = { newest: AllocationPlan | null; closed: Readonly<Record<string, AllocationPlan>> }
export const noPlans: Plans = { newest: null, closed: {} }

/** Ids of cost centres and pools as values, null for charges that no rule catches. */
const targetsOf = (trees: readonly CentreTree[]): (string | null)[] => [
  null,
  ...[...new Set(trees.flatMap(({ centres, pools }) => [...centres, ...pools].map(({ id }) => id)))].sort(),
]

/**
 * Whose each charge is in a tree, by the plan of its billing month: the id of the cost centre, or of the pool before it is divided.
 * @returns null where no plan has the tree.
 */
export function centreCoding({ newest, closed }: Plans, tree: string | null, coding: Codings): Coding | null {
  const all = [...new Set([...(newest ? [newest] : []), ...Object.values(closed)])]
  const trees = new Map(all.flatMap(plan => [[plan, treeOf(plan, tree)] as const]))
  const known = [...trees.values()].filter(own => own !== null)
  if (!known.length) return null
  const values = targetsOf(known)
  const codeOf = new Map(values.map((value, code) => [value, code]))
  const made = new Map<AllocationPlan, { rule: Catcher; targets: Int32Array }>()
  const catching = (plan: AllocationPlan) => {
    const before = made.get(plan)
    if (before) return before
    const rules = trees.get(plan)?.rules ?? []
    const own = { rule: catcherOf(rules, coding), targets: Int32Array.from([0, ...rules.map(({ target }) => codeOf.get(target)!)]) }
    made.set(plan, own)
    return own
  }
  return columnCoding(values, of => {
    const plan = Object.hasOwn(closed, of.billingMonth) ? closed[of.billingMonth]! : newest
    if (!plan) return { codes: new Uint16Array(of.segment.rows), ids: Int32Array.of(0) }
    const { rule, targets } = catching(plan)
    return { codes: rule(of), ids: targets }
  })
}

/** Which rule of a tree catches each charge: codes are places in the list plus one, 0 for none. */
export function ruleCoding(rules: CentreTree['rules'], coding: Codings): Coding {
  const rule = catcherOf(rules, coding)
  const ids = Int32Array.from({ length: rules.length + 1 }, (_, place) => place)
  return columnCoding([null, ...rules.map(({ id }) => id)], of => ({ codes: rule(of), ids }))
}
