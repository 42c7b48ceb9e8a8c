import { importChoice } from '../../../../../shared/contracts/imports'
import { body, parameter, route } from '../../../../http/route'

/** Which of two sources counts, where both deliver the same billing account and period. */
export default route(async ({ event, importer }) => {
  const { use } = await body(event, importChoice)
  const id = parameter(event, 'id')
  await importer.choose(id, use)
  return { id }
})
