import { setResponseHeader } from 'h3'
import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.savings.file, async ({ event, savings, body }) => {
  const { bytes, mime, fileName } = await savings.file(body)
  setResponseHeader(event, 'content-type', mime)
  setResponseHeader(event, 'content-disposition', `attachment; filename="${fileName}"`)
  return Buffer.from(bytes)
})
