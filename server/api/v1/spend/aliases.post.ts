import { isLookupBase } from '../../../../core/spend/lookup'
import { checkDimensions } from '../../../http/question'
import { operations } from '../../../http/operations'
import { Problem } from '../../../http/problem'
import { route } from '../../../http/route'
import { changeReference } from '../../../stores/spend-reference'

/** Lets spellings of a dimension's value count as one, over all that is loaded; `as: null` takes that back. */
export default route(operations.spend.changeAlias, async ({ database, cube, who, body }) => {
  const { dimension, spellings, as } = body
  checkDimensions([dimension])
  if (!isLookupBase(dimension))
    throw new Problem(
      422,
      'no-alias',
      'Its values are not spellings',
      `«${dimension}» is made of rules or a lookup: change those, or the spellings of what they look at.`,
    )
  const aliases = await changeReference(database.db, who, known => {
    const changed = new Map(Object.entries(known.aliases[dimension] ?? {}))
    for (const spelling of spellings) {
      if (as === null || spelling === as) changed.delete(spelling)
      else changed.set(spelling, as)
    }
    // what counted as one of these spellings counts as the new one: no chains
    if (as !== null) {
      for (const [spelling, target] of changed) if (spellings.includes(target)) changed.set(spelling, as)
      changed.delete(as)
    }
    const own = Object.fromEntries(changed)
    const { [dimension]: _, ...others } = known.aliases
    return { body: { ...known, aliases: changed.size ? { ...others, [dimension]: own } : others }, result: own }
  })
  await cube.refreshReference()
  return { aliases }
})
