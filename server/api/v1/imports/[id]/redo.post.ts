import { numberedParameter, route } from '../../../../http/route'

/** Loads again what was taken back. */
export default route(async ({ event, importer, who }) => {
  const id = String(numberedParameter(event, 'id', 'load'))
  await importer.redo(id, who)
  return { id }
})
