import { notFound } from '../../../http/problem'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

export default route(operations.sources.load, async ({ importer, path }) => {
  const { id } = path
  const status = await importer.status(id)
  if (!status) throw notFound('load', `No load has the id «${id}».`)
  return status
})
