import { notFound } from '../../../../http/problem'
import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { lookNow } from '../../../../jobs/watching'
import { findWatch } from '../../../../stores/watches'

/** Looks now instead of when it is due. */
export default route(operations.sources.lookAtWatch, async services => {
  const watch = await findWatch(services.database.db, services.path.id)
  if (!watch) throw notFound('watch', 'It may have been taken out already.')
  return { id: watch.id, said: await lookNow(services, watch, services.who) }
})
