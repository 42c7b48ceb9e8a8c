import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { lookNow, startWatching } from '../../../jobs/watching'

/** Watches a folder or a connection from now on; looks once at once. */
export default route(operations.sources.watch, async services => {
  const { who, body } = services
  const watch = await startWatching(services, body, who)
  return { id: watch.id, said: await lookNow(services, watch, who) }
})
