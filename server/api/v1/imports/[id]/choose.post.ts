import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'

/** What counts, where a delivery meets what counts already. */
export default route(operations.sources.chooseLoad, async ({ importer, who, path, body }) => {
  const { use } = body
  const id = String(path.id)
  await importer.choose(id, use, who)
  return { id }
})
