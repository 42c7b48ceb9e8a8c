import { importUndo } from '../../../../../shared/contracts/imports'
import { optionalBody, parameter, route } from '../../../../http/route'

/** Takes a load back: what was loaded before counts again. */
export default route(async ({ event, importer, who }) => {
  const id = parameter(event, 'id')
  const { empty } = await optionalBody(event, importUndo)
  await importer.undo(id, who, empty)
  return { id }
})
