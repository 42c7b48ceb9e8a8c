import { connectors } from '../../../connectors'
import { route } from '../../../http/route'

/** What is connected and whether it answers. */
export default route(async () => ({
  connections: await Promise.all(
    Object.entries(connectors()).map(async ([name, connector]) => {
      try {
        return { name, provider: connector.provider, now: await connector.clock(), problem: null }
      } catch (error) {
        return { name, provider: connector.provider, now: null, problem: (error as Error).message }
      }
    }),
  ),
}))
