import { z } from 'zod'
import { previewAction } from '../../../engine/savings'
import { body, route } from '../../../http/route'

export default route(async context => {
  const { id } = await body(context.event, z.object({ id: z.string() }))
  return previewAction(context, id)
})
