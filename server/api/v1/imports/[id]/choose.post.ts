import { importChoice } from '../../../../../shared/contracts/imports'
import { body, numberedParameter, route } from '../../../../http/route'

/** What counts, where a delivery meets what counts already. */
export default route(async ({ event, importer, who }) => {
  const { use } = await body(event, importChoice)
  const id = String(numberedParameter(event, 'id', 'load'))
  await importer.choose(id, use, who)
  return { id }
})
