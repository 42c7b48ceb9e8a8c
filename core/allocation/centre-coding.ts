import { columnCoding } from '../spend/coded-column'
import type { CentreShown } from '../spend/dimension'
import type { Coding } from '../spend/layers'
import { catcherOf, type Catcher } from './catch'
import { rulesInForce } from './centre-days'
import { conditionsWords } from './rule-words'
import { treeOf, type AllocationPlan, type CentreTree } from './plan'

type Codings = (dimension: string) => Coding

/** The plans that say whose charges are: the newest, and for months that are closed the one that they were closed under. */
export type Plans = { newest: AllocationPlan | null; closed: Readonly<Record<string, AllocationPlan>> }
export const noPlans: Plans = { newest: null, closed: {} }

/**
 * Whose each charge is in a tree, by the plan of its billing month: the cost centre, or the pool before it is divided; none where no rule
 * catches it. Or which rule says so. A tree that a closed month's plan has not goes by the newest.
 * @param shows the id of the cost centre or pool, or the name that the plan gives it; the id of the rule, or its words.
 * @returns null where no plan has the tree.
 */
export function centreCoding({ newest, closed }: Plans, tree: string | null, coding: Codings, shows: CentreShown = 'id'): Coding | null {
  const all = [...new Set([...(newest ? [newest] : []), ...Object.values(closed)])]
  const trees = new Map(all.flatMap(plan => [[plan, treeOf(plan, tree)] as const]))
  const known = [...trees.values()].filter(own => own !== null)
  if (!known.length) return null
  const values: (string | null)[] = [null, ...[...new Set(known.flatMap(own => shownValues(own, shows)))].sort()]
  const codeOf = new Map(values.map((value, code) => [value, code]))
  const made = new Map<AllocationPlan, { rule: Catcher; codes: Int32Array }>()
  const catching = (plan: AllocationPlan) => {
    const before = made.get(plan)
    if (before) return before
    const own = trees.get(plan) ?? null
    const rules = own ? rulesInForce(own) : []
    const codes = Int32Array.from([0, ...(own ? shownOfRules(own, shows) : []).map(value => codeOf.get(value)!)])
    const found = { rule: catcherOf(rules, coding), codes }
    made.set(plan, found)
    return found
  }
  return columnCoding(values, of => {
    const own = Object.hasOwn(closed, of.billingMonth) ? closed[of.billingMonth]! : newest
    const plan = own && trees.get(own) ? own : newest
    if (!plan) return { codes: new Uint16Array(of.segment.rows), ids: Int32Array.of(0) }
    const { rule, codes } = catching(plan)
    return { codes: rule(of), ids: codes }
  })
}

const targetsOf = ({ centres, pools }: CentreTree) => [...centres, ...pools]

/** What is shown of each rule of a tree, in their order. */
function shownOfRules(tree: CentreTree, shows: CentreShown): string[] {
  if (shows === 'rule') return tree.rules.map(({ id }) => id)
  if (shows === 'rule words') return tree.rules.map(conditionsWords)
  const shown = new Map(targetsOf(tree).map(one => [one.id, one[shows]]))
  return tree.rules.map(({ target }) => shown.get(target)!)
}

/** All values there can be: cost centres and pools that no rule speaks of too. */
const shownValues = (tree: CentreTree, shows: CentreShown): string[] =>
  shows === 'id' || shows === 'name' ? targetsOf(tree).map(one => one[shows]) : shownOfRules(tree, shows)
