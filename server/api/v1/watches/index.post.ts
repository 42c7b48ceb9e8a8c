import { watchInput } from '../../../../shared/contracts/imports'
import { body, route } from '../../../http/route'
import { lookNow, startWatching } from '../../../jobs/watching'

/** Watches a folder or a connection from now on; looks once at once. */
export default route(async services => {
  const { event, who } = services
  const watch = await startWatching(services, await body(event, watchInput), who)
  return { id: watch.id, said: await lookNow(services, watch, who) }
})
