import { freeId } from '../text/free-id'
import type { Day } from '../time/day'
import { centresWithin } from './tree'
import type { CentreTree, CostCentre, Rule } from './plan'

/** An id that no cost centre or pool of a tree has yet, made of a name. */
export const freeIdIn = ({ centres, pools }: Pick<CentreTree, 'centres' | 'pools'>, name: string): string =>
  freeId(
    name,
    [...centres, ...pools].map(({ id }) => id),
  )

/** Cost centres that one can be put under: all but itself and what lies below it. */
export function parentsFor({ centres }: Pick<CentreTree, 'centres'>, id: string): CostCentre[] {
  const below = centresWithin(centres, { centres: [id] })
  return centres.filter(one => !below.has(one.id))
}

/** What speaks of a cost centre or pool, and so keeps it from being deleted, in words; nothing where it can go. */
export function usesOf({ centres, pools, rules }: CentreTree, id: string): string[] {
  const counted = (many: number, one: string, more = `${one}s`) => (many ? [`${many} ${many === 1 ? one : more}`] : [])
  const names = pools.filter(pool => {
    const { among } = pool
    const named = among?.of === 'list' ? among.centres : among?.of === 'subtree' ? [among.centre] : []
    return named.includes(id) || ('shares' in pool && Object.hasOwn(pool.shares, id))
  })
  return [
    ...counted(centres.filter(({ parent }) => parent === id).length, 'cost centre below it', 'cost centres below it'),
    ...counted(rules.filter(({ target }) => target === id).length, 'rule'),
    ...names.map(({ name }) => `the pool ${name}`),
  ]
}

/**
 * Lets a cost centre end on a day, from which on its rules put charges on another. What it bore before stays on it.
 * @param newRule makes the id of a rule.
 */
export function merged(tree: CentreTree, id: string, into: string, day: Day, newRule: () => string): CentreTree {
  const follow = (rule: Rule): Rule[] =>
    rule.target !== id || (rule.until && rule.until <= day)
      ? [rule]
      : [rule, { ...rule, id: newRule(), target: into, from: rule.from && rule.from > day ? rule.from : day }]
  return { ...tree, centres: tree.centres.map(one => (one.id === id ? { ...one, until: day } : one)), rules: tree.rules.flatMap(follow) }
}

/** Puts a new cost centre beside another, from a day on: charges land on it by the rules that are made for it. */
export function splitOff(tree: CentreTree, id: string, name: string, day: Day): CentreTree {
  const at = tree.centres.findIndex(one => one.id === id)
  const { parent, owner } = tree.centres[at]!
  const made: CostCentre = { id: freeIdIn(tree, name), name, parent, owner, from: day }
  return { ...tree, centres: tree.centres.toSpliced(at + 1, 0, made) }
}
