import { setResponseHeader } from 'h3'
import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.spend.table, async ({ event, spend, body }) => {
  const { bytes, mime } = await spend.table(body)
  setResponseHeader(event, 'content-type', mime)
  return Buffer.from(bytes)
})
