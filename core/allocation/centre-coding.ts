import { columnCoding } from '../spend/coded-column'
import type { Coding } from '../spend/layers'
import { toEnd, type Slices } from '../spend/slices'
import { catcherInSlices, catcherOf, type Catcher } from './catch'
import { treeOf, type AllocationPlan, type CentreTree } from './plan'

type Codings = (dimension: string) => Coding

/** The plans that say whose charges are: the newest, and for months that are closed the one that they were closed under. */
export type Plans = { newest: AllocationPlan | null; closed: Readonly<Record<string, AllocationPlan>> }
export const noPlans: Plans = { newest: null, closed: {} }

/**
 * Whose each charge is in a tree, by the plan of its billing month: the cost centre, or the pool before it is divided; none where no rule
 * catches it.
 * @param shows the id, or the name that the plan gives it.
 * @returns null where no plan has the tree.
 */
export function centreCoding({ newest, closed }: Plans, tree: string | null, coding: Codings, shows: 'id' | 'name' = 'id'): Coding | null {
  const all = [...new Set([...(newest ? [newest] : []), ...Object.values(closed)])]
  const trees = new Map(all.flatMap(plan => [[plan, treeOf(plan, tree)] as const]))
  const known = [...trees.values()].filter(own => own !== null)
  if (!known.length) return null
  const targets = ({ centres, pools }: CentreTree) => [...centres, ...pools]
  const values: (string | null)[] = [null, ...[...new Set(known.flatMap(own => targets(own).map(one => one[shows])))].sort()]
  const codeOf = new Map(values.map((value, code) => [value, code]))
  const made = new Map<AllocationPlan, { rule: Catcher; codes: Int32Array }>()
  const catching = (plan: AllocationPlan) => {
    const before = made.get(plan)
    if (before) return before
    const own = trees.get(plan)
    const shown = new Map(own ? targets(own).map(one => [one.id, one[shows]]) : [])
    const rules = own?.rules ?? []
    const codes = Int32Array.from([0, ...rules.map(({ target }) => codeOf.get(shown.get(target)!)!)])
    const found = { rule: catcherOf(rules, coding), codes }
    made.set(plan, found)
    return found
  }
  return columnCoding(values, of => {
    const plan = Object.hasOwn(closed, of.billingMonth) ? closed[of.billingMonth]! : newest
    if (!plan) return { codes: new Uint16Array(of.segment.rows), ids: Int32Array.of(0) }
    const { rule, codes } = catching(plan)
    return { codes: rule(of), ids: codes }
  })
}

/** Which rule of a tree catches each charge: codes are places in the list plus one, 0 for none. */
export const ruleCoding = (rules: CentreTree['rules'], coding: Codings): Coding => toEnd(ruleCodingInSlices(rules, coding))

/** The same in slices. */
export function* ruleCodingInSlices(rules: CentreTree['rules'], coding: Codings): Slices<Coding> {
  const rule = yield* catcherInSlices(rules, coding)
  const ids = Int32Array.from({ length: rules.length + 1 }, (_, place) => place)
  return columnCoding([null, ...rules.map(({ id }) => id)], of => ({ codes: rule(of), ids }))
}
