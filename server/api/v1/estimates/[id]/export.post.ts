import { setResponseHeader } from 'h3'
import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.estimates.export, async ({ event, estimates, path, body }) => {
  const { bytes, type, fileName } = await estimates.export(path.id, body)
  setResponseHeader(event, 'content-type', type)
  setResponseHeader(event, 'content-disposition', `attachment; filename="${fileName}"`)
  return bytes
})
