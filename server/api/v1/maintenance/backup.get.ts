import { PassThrough } from 'node:stream'
import { setResponseHeader } from 'h3'
import { mustMaintain } from '../../../http/maintainer'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { sendPieces } from '../../../http/send-stream'
import { writeBackup } from '../../../maintenance/backup'

/** Everything that is kept as one file; it is sent while it is made, and has no end where it could not be. */
export default route(operations.maintenance.backup, ({ event, database, token }) => {
  mustMaintain(event, token)
  const out = new PassThrough()
  // an error destroys the stream, which ends the reply before its end
  writeBackup(database, out).catch((error: Error) => out.destroy(error))
  setResponseHeader(event, 'content-type', 'application/x-tar')
  return sendPieces(event, out)
})
