import { notFound } from '../../../http/problem'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { findMapping } from '../../../stores/mappings'

export default route(operations.sources.mapping, async ({ database, path }) => {
  const { source } = path
  const mapping = await findMapping(database.db, source)
  if (!mapping) throw notFound('mapping', `The files of «${source}» are read as FOCUS.`)
  return { source, mapping }
})
