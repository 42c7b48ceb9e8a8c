import { setResponseHeader } from 'h3'
import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.allocation.statements, async ({ event, allocation, path, query }) => {
  const { bytes, mime, fileName } = await allocation.statements(path.format, query)
  const ending = path.format === 'journal' ? '-journal.csv' : `.${path.format}`
  setResponseHeader(event, 'content-type', mime)
  setResponseHeader(event, 'content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(fileName + ending)}`)
  return Buffer.from(bytes)
})
