import { setResponseHeader } from 'h3'
import { operations } from '../../../operations'
import { route } from '../../../http/route'
import { sendPieces } from '../../../http/send-stream'

export default route(operations.allocation.lines, async ({ event, allocation, query }) => {
  const { pieces, fileName } = await allocation.lines(query)
  setResponseHeader(event, 'content-type', 'text/csv; charset=utf-8')
  setResponseHeader(event, 'content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(fileName)}`)
  return sendPieces(event, pieces)
})
