import { z } from 'zod'
import { isDay } from '../time/day'
import { condition } from './condition'
import { pool, poolNeeds, type Pool } from './pools'

export type { Pool } from './pools'

const day = z.string().refine(isDay, 'write a day like 2026-11-01')

const rule = z.object({
  id: z.string().min(1),
  /** All must hold. */
  conditions: z.array(condition).min(1, 'a rule needs a condition'),
  /** The cost centre or pool that gets what the rule catches. */
  target: z.string().min(1, 'choose the cost centre or pool that it goes to'),
  /** The first day on which the rule holds, and the day from which on it does not; null or nothing for no bound. */
  from: day.nullable().optional(),
  until: day.nullable().optional(),
})
export type Rule = z.infer<typeof rule>
export type { Condition } from './condition'

const centre = z.object({
  id: z.string().min(1),
  name: z.string().min(1, 'give the cost centre a name'),
  parent: z.string().nullable(),
  owner: z.string().nullable(),
  /** What the ledger calls it. */
  code: z.string().min(1).optional(),
  /** The first day on which charges land on it, and the day from which on none do; null or nothing for no bound. */
  from: day.nullable().optional(),
  until: day.nullable().optional(),
})
export type CostCentre = z.infer<typeof centre>

/** More rules than this, and their number does not fit where charges keep it. */
const MOST_RULES = 5000
/** How pools that serve each other are settled, as cost accounting knows it. */
export const servingMethods = ['direct', 'step-down', 'reciprocal'] as const
export type ServingMethod = (typeof servingMethods)[number]

const parts = {
  centres: z.array(centre).min(1),
  pools: z.array(pool),
  /** Nothing where no pool is served, over others, by one that it serves. Step-down goes by the order of the pools. */
  serving: z.enum(servingMethods).optional(),
  rules: z.array(rule).max(MOST_RULES, `there are at most ${MOST_RULES} rules`),
}

/** A further tree over the same money. */
const tree = z.object({
  id: z
    .string()
    .min(1)
    .regex(/^[^/]+$/, 'no slash in the id of a tree'),
  name: z.string().min(1, 'give the tree a name'),
  ...parts,
})

/** A tree of cost centres, the ordered rules that put charges on them, and the pools that are shared out. */
export type CentreTree = Pick<z.infer<typeof tree>, 'centres' | 'pools' | 'rules' | 'serving'>

function treeProblems({ centres, pools, rules, serving }: CentreTree, wrong: (path: (string | number)[], message: string) => void): void {
  const ids = new Set<string>()
  for (const [list, items] of [
    ['centres', centres],
    ['pools', pools],
  ] as const) {
    items.forEach((item, index) => {
      if (ids.has(item.id)) wrong([list, index, 'id'], `«${item.id}» appears twice`)
      ids.add(item.id)
    })
  }
  const parents = new Map(centres.map(c => [c.id, c.parent]))
  centres.forEach((c, index) => {
    if (c.from && c.until && c.from >= c.until)
      wrong(['centres', index, 'until'], `«${c.name}» ends on ${c.until}, before it begins on ${c.from}`)
    const path = new Set([c.id])
    for (let above = c.parent; above !== null; above = parents.get(above) ?? null) {
      if (!parents.has(above)) return wrong(['centres', index, 'parent'], `there is no cost centre «${above}»`)
      if (path.has(above)) return wrong(['centres', index, 'parent'], `«${c.name}» is its own ancestor`)
      path.add(above)
    }
  })
  poolProblems(pools, ids, serving, wrong)
  const ruleIds = new Set<string>()
  rules.forEach((r, index) => {
    if (r.target && !ids.has(r.target)) wrong(['rules', index, 'target'], `there is no cost centre or pool «${r.target}»`)
    if (ruleIds.has(r.id)) wrong(['rules', index, 'id'], `the rule «${r.id}» appears twice`)
    ruleIds.add(r.id)
    if (r.from && r.until && r.from >= r.until)
      wrong(['rules', index, 'until'], `the rule ends on ${r.until}, before it begins on ${r.from}`)
  })
}

/**
 * Pools may share out to pools: in a circle only where it is said how that is settled, and never so that what is on one can land on no
 * cost centre.
 */
function poolProblems(
  pools: readonly Pool[],
  ids: ReadonlySet<string>,
  serving: ServingMethod | undefined,
  wrong: (path: (string | number)[], message: string) => void,
): void {
  const targets = new Map(pools.map(own => [own.id, poolTargets(own)]))
  pools.forEach((own, index) => {
    const given = poolNeeds(own)
    if (given.basis === 'weights' && !Object.keys(given.weights).length)
      wrong(['pools', index, 'shares'], `«${own.name}» has no shares: say who bears how much of it`)
    for (const target of poolTargets(own))
      if (!ids.has(target)) wrong(['pools', index, 'shares', target], `there is no cost centre or pool «${target}»`)
    for (const centre of namedCentres(own))
      if (!ids.has(centre) || targets.has(centre)) wrong(['pools', index, 'among'], `there is no cost centre «${centre}»`)
    if (!serving && reachedFrom(own.id, targets).has(own.id))
      wrong(
        ['pools', index, 'shares'],
        `«${own.name}» would be shared out to itself, over other pools or at once: choose how pools that serve each other are settled`,
      )
  })
  if (!serving) return
  const served = new Map(pools.map((own, index) => [own.id, bearersOf(own, index, pools, serving)]))
  pools.forEach((own, index) => {
    if (given(own) && ![own.id, ...reachedFrom(own.id, served)].some(id => served.get(id)?.some(target => !targets.has(target))))
      wrong(['pools', index, 'shares'], `«${own.name}» lands on no cost centre by the ${serving} method: it is shared out to pools only`)
  })
}

/** Whether a pool says itself who bears it. */
const given = (own: Pool) => poolNeeds(own).basis === 'weights'

/** Who bears of a pool by a method: a pool that is settled before it, or by the direct method any, bears nothing. */
const bearersOf = (own: Pool, index: number, pools: readonly Pool[], serving: ServingMethod): string[] =>
  given(own) ? poolTargets(own).filter(target => mayServe(serving, pools, index, target)) : ['']

/** Whether a pool serves a target by a method: cost centres always, of other pools those that the method lets it. */
export function mayServe(serving: ServingMethod, pools: readonly Pool[], index: number, target: string): boolean {
  const at = pools.findIndex(({ id }) => id === target)
  if (at < 0 || serving === 'reciprocal') return true
  return serving === 'step-down' && at > index
}

/** What can be reached from a pool, over others or at once. */
function reachedFrom(from: string, targets: ReadonlyMap<string, readonly string[]>): Set<string> {
  const seen = new Set<string>()
  const visit = (id: string): void => {
    for (const target of targets.get(id) ?? []) {
      if (seen.has(target)) continue
      seen.add(target)
      visit(target)
    }
  }
  visit(from)
  return seen
}

/** Cost centres that a pool is divided among by their names. */
const namedCentres = ({ among }: Pool): string[] => (among?.of === 'list' ? among.centres : among?.of === 'subtree' ? [among.centre] : [])

/** Cost centres and pools that a pool names itself. */
export function poolTargets(own: Pool): string[] {
  const given = poolNeeds(own)
  return given.basis === 'weights' ? Object.keys(given.weights) : []
}

/** The first tree of cost centres with its rules and pools, and further ones over the same money. */
export const allocationPlanSchema = z.object({ ...parts, trees: z.array(tree).optional() }).superRefine((plan, context) => {
  const wrong = (path: (string | number)[], message: string) => context.addIssue({ code: 'custom', path, message })
  treeProblems(plan, wrong)
  const ids = new Set<string>()
  plan.trees?.forEach((own, index) => {
    if (ids.has(own.id)) wrong(['trees', index, 'id'], `the tree «${own.id}» appears twice`)
    ids.add(own.id)
    treeProblems(own, (path, message) => wrong(['trees', index, ...path], message))
  })
})
export type AllocationPlan = z.infer<typeof allocationPlanSchema>

/** A tree of a plan; null for the first. @returns null where there is no such tree. */
export const treeOf = (plan: AllocationPlan, id: string | null): CentreTree | null =>
  id === null ? plan : (plan.trees?.find(tree => tree.id === id) ?? null)

/** A plan with another tree in the place of one of it; null for the first. */
export const withTree = (plan: AllocationPlan, id: string | null, own: CentreTree): AllocationPlan =>
  id === null ? { ...plan, ...own } : { ...plan, trees: plan.trees?.map(tree => (tree.id === id ? { ...tree, ...own } : tree)) }

/** Dimensions that rules look at. */
export function ruleDimensions({ rules }: Pick<CentreTree, 'rules'>): string[] {
  return [...new Set(rules.flatMap(r => r.conditions.flatMap(one => ('dimension' in one ? [one.dimension] : []))))].sort()
}
