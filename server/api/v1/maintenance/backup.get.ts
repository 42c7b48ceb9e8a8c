import { PassThrough } from 'node:stream'
import { sendStream, setResponseHeader } from 'h3'
import { mustMaintain } from '../../../http/maintainer'
import { route } from '../../../http/route'
import { writeBackup } from '../../../maintenance/backup'

/** Everything that is kept as one file; it is sent while it is made, and has no end where it could not be. */
export default route(({ event, database, token }) => {
  mustMaintain(event, token)
  const out = new PassThrough()
  writeBackup(database, out).catch((error: Error) => {
    console.error('the backup was not made', error)
    out.destroy(error)
  })
  setResponseHeader(event, 'content-type', 'application/x-tar')
  return sendStream(event, out)
})
