import { conflict, notFound } from '../../../../http/problem'
import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { loadJob } from '../../../../imports/importer'

/** Asks a load to stop, whichever process reads it. */
export default route(operations.sources.stopLoad, async ({ importer, jobs, path }) => {
  const id = String(path.id)
  if (!(await importer.status(id))) throw notFound('load', `No load has the id «${id}».`)
  const isAsked = importer.has(id) ? importer.stop(id) : await jobs.stop(loadJob(id))
  if (!isAsked) throw conflict('The load has ended', 'It was loaded, refused or stopped before; there is nothing to stop.')
  return { id }
})
