import { conflict, notFound } from '../../../../http/problem'
import { numberedParameter, route } from '../../../../http/route'
import { loadJob } from '../../../../imports/importer'

/** Asks a load to stop, whichever process reads it. */
export default route(async ({ event, importer, jobs }) => {
  const id = String(numberedParameter(event, 'id', 'load'))
  if (!(await importer.status(id))) throw notFound('load', `No load has the id «${id}».`)
  const isAsked = importer.has(id) ? importer.stop(id) : await jobs.stop(loadJob(id))
  if (!isAsked) throw conflict('The load has ended', 'It was loaded, refused or stopped before; there is nothing to stop.')
  return { id }
})
