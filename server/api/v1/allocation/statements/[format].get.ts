import { setResponseHeader } from 'h3'
import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.allocation.statements, async ({ event, allocation, path, query }) => {
  const { bytes, mime, fileName } = await allocation.statements(path.format, query)
  setResponseHeader(event, 'content-type', mime)
  setResponseHeader(event, 'content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(fileName)}`)
  return Buffer.from(bytes)
})
