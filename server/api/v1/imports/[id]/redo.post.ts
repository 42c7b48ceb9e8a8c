import { parameter, route } from '../../../../http/route'

/** Loads again what was taken back. */
export default route(async ({ event, importer, who }) => {
  const id = parameter(event, 'id')
  await importer.redo(id, who)
  return { id }
})
