import { likelySpellings } from '../../spend/spellings'
import type { UnallocatedGroup } from '../caught'
import type { CentreTree } from '../plan'

/** Where a group most likely belongs, and by which of its values: one that looks like a value of a rule, or like a cost centre's name. */
export type LikelyTarget = { target: string; dimension: string; value: string; looksLike: string }

/** @returns null where nothing of the group looks like anything that the plan knows. */
export function likelyTarget(
  { values }: Pick<UnallocatedGroup, 'values'>,
  { rules, centres }: Pick<CentreTree, 'rules' | 'centres'>,
): LikelyTarget | null {
  const own = Object.entries(values)
    .filter((pair): pair is [string, string] => pair[1] !== null)
    .sort(([a], [b]) => Number(b.startsWith('Tags/')) - Number(a.startsWith('Tags/')))
  for (const [dimension, value] of own) {
    for (const { conditions, target } of rules) {
      // what has further conditions says something of more than the value; what goes nowhere yet says nothing
      const [only, another] = conditions
      if (!target || !only || another || !('values' in only) || only.dimension !== dimension) continue
      const looksLike = only.values.find(known => known !== null && isLike(value, known))
      if (looksLike) return { target, dimension, value, looksLike }
    }
    const centre = centres.find(({ id, name }) => isLike(value, name) || isLike(value, id))
    if (centre) return { target: centre.id, dimension, value, looksLike: centre.name }
  }
  return null
}

const isLike = (a: string, b: string) => a === b || likelySpellings([a, b]).length > 0
