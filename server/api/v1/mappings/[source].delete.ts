import { notFound } from '../../../http/problem'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { removeMapping } from '../../../stores/mappings'

export default route(operations.sources.removeMapping, async ({ database, path }) => {
  const { source } = path
  if (!(await removeMapping(database.db, source))) throw notFound('mapping', `The files of «${source}» are read as FOCUS.`)
  return { source }
})
