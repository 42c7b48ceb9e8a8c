import { setResponseHeader } from 'h3'
import { shownToken } from '../../../http/maintainer'
import { operations } from '../../../operations'
import { route } from '../../../http/route'
import { sendPieces } from '../../../http/send-stream'

export default route(operations.maintenance.backup, ({ maintenance, event }) => {
  setResponseHeader(event, 'content-type', 'application/x-tar')
  return sendPieces(event, maintenance.backup(shownToken(event)))
})
