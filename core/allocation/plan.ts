import { z } from 'zod'
import { tagKey } from '../focus/star'
import { isDimension } from '../spend/dimension'

/** Where a rule may look: sub accounts and any tag. */
export function isRuleDimension(name: string): boolean {
  return name === 'SubAccountName' || (tagKey(name) !== null && isDimension(name))
}

const condition = z.object({
  dimension: z.string().refine(isRuleDimension, 'rules look at SubAccountName or at a tag, written Tags/KEY'),
  /** Any of these; null stands for "has none". */
  values: z.array(z.string().nullable()).min(1, 'name at least one value'),
})
export type Condition = z.infer<typeof condition>

const rule = z.object({
  id: z.string().min(1),
  /** All must hold. */
  conditions: z.array(condition).min(1, 'a rule needs a condition'),
  /** The cost centre or pool that gets what the rule catches. */
  target: z.string().min(1),
})
export type Rule = z.infer<typeof rule>

const centre = z.object({ id: z.string().min(1), name: z.string().min(1), parent: z.string().nullable(), owner: z.string().nullable() })
export type CostCentre = z.infer<typeof centre>

/** What is collected here is divided among cost centres in proportion to what they have directly. */
const pool = z.object({ id: z.string().min(1), name: z.string().min(1), method: z.literal('direct cost') })
export type Pool = z.infer<typeof pool>

/** The tree of cost centres, the ordered rules that put charges on them, and the pool that is shared out. */
export const allocationPlanSchema = z
  .object({ centres: z.array(centre).min(1), pools: z.array(pool).max(1, 'there is one pool'), rules: z.array(rule) })
  .superRefine((plan, context) => {
    const wrong = (path: (string | number)[], message: string) => context.addIssue({ code: 'custom', path, message })
    const ids = new Set<string>()
    for (const [list, items] of [
      ['centres', plan.centres],
      ['pools', plan.pools],
    ] as const) {
      items.forEach((item, index) => {
        if (ids.has(item.id)) wrong([list, index, 'id'], `«${item.id}» is there twice`)
        ids.add(item.id)
      })
    }
    const parents = new Map(plan.centres.map(c => [c.id, c.parent]))
    plan.centres.forEach((c, index) => {
      const path = new Set([c.id])
      for (let above = c.parent; above !== null; above = parents.get(above) ?? null) {
        if (!parents.has(above)) return wrong(['centres', index, 'parent'], `there is no cost centre «${above}»`)
        if (path.has(above)) return wrong(['centres', index, 'parent'], `«${c.name}» is its own ancestor`)
        path.add(above)
      }
    })
    const ruleIds = new Set<string>()
    plan.rules.forEach((r, index) => {
      if (!ids.has(r.target)) wrong(['rules', index, 'target'], `there is no cost centre or pool «${r.target}»`)
      if (ruleIds.has(r.id)) wrong(['rules', index, 'id'], `the rule «${r.id}» is there twice`)
      ruleIds.add(r.id)
    })
  })
export type AllocationPlan = z.infer<typeof allocationPlanSchema>

/** Dimensions that the rules look at. */
export function ruleDimensions(plan: AllocationPlan): string[] {
  return [...new Set(plan.rules.flatMap(r => r.conditions.map(c => c.dimension)))].sort()
}
