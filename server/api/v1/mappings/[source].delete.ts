import { notFound } from '../../../http/problem'
import { parameter, route } from '../../../http/route'
import { removeMapping } from '../../../stores/mappings'

export default route(async ({ event, database }) => {
  const source = parameter(event, 'source')
  if (!(await removeMapping(database.db, source))) throw notFound('mapping', `The files of «${source}» are read as FOCUS.`)
  return { source }
})
