import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'

/** Takes a load back: what was loaded before counts again. */
export default route(operations.sources.undoLoad, async ({ importer, who, path, body }) => {
  const id = String(path.id)
  const { empty } = body
  await importer.undo(id, who, empty)
  return { id }
})
