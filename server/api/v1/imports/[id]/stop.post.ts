import { conflict, notFound } from '../../../../http/problem'
import { parameter, route } from '../../../../http/route'

export default route(async ({ event, importer }) => {
  const id = parameter(event, 'id')
  if (!(await importer.status(id))) throw notFound('load', `No load has the id «${id}».`)
  if (!importer.stop(id)) throw conflict('The load has ended', 'It was loaded, refused or stopped before; there is nothing to stop.')
  return { id }
})
