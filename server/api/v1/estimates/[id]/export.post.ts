import { setResponseHeader } from 'h3'
import { exportAsked } from '../../../../../shared/contracts/estimates'
import { exportEstimate } from '../../../../exports/export-estimate'
import { body, parameter, route } from '../../../../http/route'

/** A version as a file to hand over: CSV, XLSX with live formulas, or PDF. */
export default route(async ({ event, database, exporter, who }) => {
  const asked = await body(event, exportAsked)
  const { bytes, type, fileName } = await exportEstimate({ database, exporter }, parameter(event, 'id'), asked, who)
  setResponseHeader(event, 'content-type', type)
  setResponseHeader(event, 'content-disposition', `attachment; filename="${fileName}"`)
  return bytes
})
