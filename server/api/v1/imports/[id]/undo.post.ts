import { parameter, route } from '../../../../http/route'

/** Takes a load back: what was loaded before counts again. */
export default route(async ({ event, importer, who }) => {
  const id = parameter(event, 'id')
  await importer.undo(id, who)
  return { id }
})
