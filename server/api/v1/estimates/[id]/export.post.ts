import { setResponseHeader } from 'h3'
import { exportEstimate } from '../../../../exports/estimate/export-estimate'
import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'

/** A version as a file to hand over: CSV, XLSX with live formulas, or PDF. */
export default route(operations.estimates.export, async ({ event, database, exporter, who, path, body: asked }) => {
  const { bytes, type, fileName } = await exportEstimate({ database, exporter }, path.id, asked, who)
  setResponseHeader(event, 'content-type', type)
  setResponseHeader(event, 'content-disposition', `attachment; filename="${fileName}"`)
  return bytes
})
