import { operations } from '../../http/operations'
import { route } from '../../http/route'

export default route(operations.server.health, async ({ cube }) => {
  const { revision } = await cube.ask('facts', undefined)
  return { status: 'ready', revision }
})
