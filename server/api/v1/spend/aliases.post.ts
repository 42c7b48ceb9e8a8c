import { aliasChange } from '../../../../shared/contracts/spend-settings'
import { checkDimensions } from '../../../http/question'
import { body, route } from '../../../http/route'
import { readReference, saveReference } from '../../../stores/spend-reference'

/** Lets spellings of a dimension's value count as one, over all that is loaded; `as: null` takes that back. */
export default route(async ({ event, database, cube, who }) => {
  const { dimension, spellings, as } = await body(event, aliasChange)
  checkDimensions([dimension])
  const { body: known } = await readReference(database.db)
  const own = { ...known.aliases[dimension] }
  for (const spelling of spellings) {
    if (as === null || spelling === as) delete own[spelling]
    else own[spelling] = as
  }
  // what counted as one of these spellings counts as the new one: no chains
  if (as !== null) for (const [spelling, target] of Object.entries(own)) if (spellings.includes(target) && spelling !== as) own[spelling] = as
  delete own[as ?? '']
  const { [dimension]: _, ...others } = known.aliases
  await saveReference(database.db, { ...known, aliases: Object.keys(own).length ? { ...others, [dimension]: own } : others }, who)
  await cube.refreshReference()
  return { aliases: own }
})
