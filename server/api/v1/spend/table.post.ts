import { setResponseHeader } from 'h3'
import { tableExport } from '../../../../shared/contracts/spend-export'
import { tableFile } from '../../../engine/table-file'
import { checkDimensions, checkScope } from '../../../http/question'
import { body, route } from '../../../http/route'

/** The table as it is shown, as a file. */
export default route(async ({ event, cube, exporter }) => {
  const asked = await body(event, tableExport)
  checkScope(asked.question)
  checkDimensions(asked.across && asked.across !== 'start' ? [asked.across] : [])
  const { bytes, mime } = await tableFile({ cube, exporter }, asked)
  setResponseHeader(event, 'content-type', mime)
  return Buffer.from(bytes)
})
