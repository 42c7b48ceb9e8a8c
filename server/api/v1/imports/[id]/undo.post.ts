import { importUndo } from '../../../../../shared/contracts/imports'
import { optionalBody, numberedParameter, route } from '../../../../http/route'

/** Takes a load back: what was loaded before counts again. */
export default route(async ({ event, importer, who }) => {
  const id = String(numberedParameter(event, 'id', 'load'))
  const { empty } = await optionalBody(event, importUndo)
  await importer.undo(id, who, empty)
  return { id }
})
