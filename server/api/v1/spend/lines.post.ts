import { setResponseHeader } from 'h3'
import { operations } from '../../../operations'
import { route } from '../../../http/route'
import { sendPieces } from '../../../http/send-stream'

export default route(operations.spend.lines, async ({ event, spend, body }) => {
  const { mime, pieces } = await spend.lines(body)
  setResponseHeader(event, 'content-type', mime)
  return sendPieces(event, pieces)
})
