import { notFound } from '../../../http/problem'
import { parameter, route } from '../../../http/route'

export default route(async ({ event, importer }) => {
  const id = parameter(event, 'id')
  const status = await importer.status(id)
  if (!status) throw notFound('load', `No load has the id «${id}».`)
  return status
})
