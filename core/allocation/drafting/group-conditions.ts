import type { UnallocatedGroup } from '../caught'
import type { ValueCondition } from '../condition'

type Values = UnallocatedGroup['values']

/**
 * The conditions that tell a group of what is unallocated apart from all others: tags that it has first, then what else it has, then what
 * it lacks; each only where it rules out another group.
 * @param all the groups of the queue, this one among them.
 */
export function groupConditions(values: Values, all: readonly Pick<UnallocatedGroup, 'values'>[]): ValueCondition[] {
  const pairs = Object.entries(values)
  const isTag = (dimension: string) => dimension.startsWith('Tags/')
  const ordered = [
    ...pairs.filter(([dimension, value]) => value !== null && isTag(dimension)),
    ...pairs.filter(([dimension, value]) => value !== null && !isTag(dimension)),
    ...pairs.filter(([, value]) => value === null),
  ]
  let rivals = all.map(group => group.values).filter(other => pairs.some(([dimension, value]) => other[dimension] !== value))
  const chosen: ValueCondition[] = []
  for (const [dimension, value] of ordered) {
    const left = rivals.filter(other => other[dimension] === value)
    if (chosen.length && left.length === rivals.length) continue
    chosen.push({ dimension, values: [value] })
    rivals = left
    if (!rivals.length) break
  }
  return chosen
}
