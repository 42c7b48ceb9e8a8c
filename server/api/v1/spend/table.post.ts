import { setResponseHeader } from 'h3'
import { tableFile } from '../../../use-cases/table-file'
import { checkDimensions, checkScope } from '../../../http/question'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

/** The table as it is shown, as a file. */
export default route(operations.spend.table, async ({ event, cube, exporter, body: asked }) => {
  checkScope(asked.question)
  checkDimensions(asked.across && asked.across !== 'start' ? [asked.across] : [])
  const { bytes, mime } = await tableFile({ cube, exporter }, asked)
  setResponseHeader(event, 'content-type', mime)
  return Buffer.from(bytes)
})
