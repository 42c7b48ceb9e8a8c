import type { WrongLine } from '../../text/text-table'
import { allocationPlanSchema, withTree, type AllocationPlan, type CentreTree, type CostCentre, type Rule } from '../plan'

/** Parts of trees (null for the first) as a table has them, each with the line that it begins on. */
export type TableParts<T> = ReadonlyMap<string | null, { items: T[]; lines: number[] }>

/** The trees of a plan, the first as null. */
export const treesOf = (plan: AllocationPlan): [string | null, CentreTree][] => [
  [null, plan],
  ...(plan.trees ?? []).map((tree): [string, CentreTree] => [tree.id, tree]),
]

/** Rows by the tree that they are of, in their order. */
export function partsByTree<T>(read: readonly { tree: string | null; line: number; item: T }[]): TableParts<T> {
  const parts = new Map<string | null, { items: T[]; lines: number[] }>()
  for (const { tree, line, item } of read) {
    const own = parts.get(tree) ?? { items: [], lines: [] }
    parts.set(tree, own)
    own.items.push(item)
    own.lines.push(line)
  }
  return parts
}

/**
 * A plan with the cost centres, or the rules, of a table in place of its own; a tree of which the table has nothing stays as it is.
 * @returns nothing of it where a line does not fit: all of those are told.
 */
export function withTable(
  plan: AllocationPlan,
  which: 'centres' | 'rules',
  parts: TableParts<CostCentre> | TableParts<Rule>,
): { plan: AllocationPlan | null; wrong: WrongLine[] } {
  const trees = treesOf(plan)
  const wrong: WrongLine[] = []
  let made = plan
  for (const [id, { items, lines }] of parts) {
    const tree = trees.find(([own]) => own === id)
    if (!tree) wrong.push({ line: lines[0]!, why: `there is no tree «${id}»` })
    else made = withTree(made, id, { ...tree[1], [which]: items })
  }
  if (wrong.length) return { plan: null, wrong }
  const checked = allocationPlanSchema.safeParse(made)
  if (checked.success) return { plan: checked.data, wrong }
  return {
    plan: null,
    wrong: checked.error.issues
      .map(({ path, message }): WrongLine => {
        const id = path[0] === 'trees' ? (made.trees?.[path[1] as number]?.id ?? null) : null
        const [list, place] = path[0] === 'trees' ? path.slice(2) : path
        const line = list === which && typeof place === 'number' ? parts.get(id)?.lines[place] : undefined
        return { line: line ?? 1, why: line === undefined ? `with it ${path.map(String).join(' ')}: ${message}` : message }
      })
      .sort((a, b) => a.line - b.line),
  }
}
