import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'

/** Loads again what was taken back. */
export default route(operations.sources.redoLoad, async ({ importer, who, path }) => {
  const id = String(path.id)
  await importer.redo(id, who)
  return { id }
})
