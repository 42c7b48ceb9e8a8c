import { previewAction } from '../../../use-cases/savings'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

export default route(operations.savings.preview, async context => {
  const { id } = context.body
  return previewAction(context, id)
})
