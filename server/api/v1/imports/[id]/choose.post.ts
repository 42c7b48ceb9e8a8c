import { importChoice } from '../../../../../shared/contracts/imports'
import { body, parameter, route } from '../../../../http/route'

/** What counts, where a delivery meets what counts already. */
export default route(async ({ event, importer, who }) => {
  const { use } = await body(event, importChoice)
  const id = parameter(event, 'id')
  await importer.choose(id, use, who)
  return { id }
})
