import { allocationPlanSchema, type AllocationPlan } from '../../core/allocation/plan'
import type { ProblemDetails } from '../../shared/contracts/common'

const KEY = 'rain-barrel-rules-draft'
/** Rules as they are being changed, and the version that they were begun on. */
export type RuleDraft = { basedOn: number; plan: AllocationPlan }

/** What keeps a plan from being used or saved; null where nothing does. */
export function problemOfPlan(plan: AllocationPlan): ProblemDetails | null {
  const checked = allocationPlanSchema.safeParse(plan)
  if (checked.success) return null
  const detail = [...new Set(checked.error.issues.map(issue => issue.message))].join('; ')
  return { type: '', status: 0, code: 'invalid', title: 'The rules cannot be used yet', detail }
}

/** The draft that this machine keeps, so that it survives that the page is left or loaded anew. */
export const keptDraft = {
  keep(draft: RuleDraft | null): void {
    localStorage.removeItem(KEY)
    try {
      if (draft) localStorage.setItem(KEY, JSON.stringify(draft))
    } catch {
      // the machine has no room for it: it is on the page all the same, and leaving asks
    }
  },
  /** @returns null where there is none, or none that can be read. */
  read(): RuleDraft | null {
    try {
      const { basedOn, plan } = JSON.parse(localStorage.getItem(KEY) ?? 'null') as RuleDraft
      return Number.isInteger(basedOn) && Array.isArray(plan.rules) && Array.isArray(plan.centres) ? { basedOn, plan } : null
    } catch {
      return null
    }
  },
}
