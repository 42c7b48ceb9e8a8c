import { notFound } from '../../../http/problem'
import { parameter, route } from '../../../http/route'
import { findMapping } from '../../../stores/mappings'

export default route(async ({ event, database }) => {
  const source = parameter(event, 'source')
  const mapping = await findMapping(database.db, source)
  if (!mapping) throw notFound('mapping', `The files of «${source}» are read as FOCUS.`)
  return { source, mapping }
})
