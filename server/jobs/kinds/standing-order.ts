import { z } from 'zod'
import { endLeftRuns, findOrder, orderJob, setOrder, STANDING_ORDER, takeAsked } from '../../stores/standing-orders'
import { findJob } from '../../stores/jobs'
import { madeSince } from '../../stores/observed'
import { runOrder } from '../../use-cases/standing-orders/run-order'
import { SCHEDULE, type JobKind } from './kind'

/**
 * Runs a standing order: as somebody has asked for it; for what was made since, where events start it; and whole, when its round has come.
 * What a process ends over is kept as far as it was; the next run finds out what became of it, and goes on.
 */
export const standingOrder: JobKind<{ order: string }> = {
  kind: STANDING_ORDER,
  does: 'Run a standing order',
  argument: z.object({ order: z.string() }),
  stops: true,
  async describe({ order }, db) {
    return { about: (await findOrder(db, order))?.definition.name ?? 'an order that is gone', page: '/savings/orders' }
  },
  async run({ order: id }, { services, signal, about, progress }) {
    const { db } = services.database
    const said: string[] = []
    const job = await findJob(db, orderJob(id))
    // a round that failed is tried again before the next
    const isRound = !!job?.roundDue && (Date.parse(job.roundDue) <= Date.now() || job.attempts > 0)
    await endLeftRuns(db, id)
    const run = { services, signal, about, progress }
    const runAsked = async () => {
      for (let asked = await takeAsked(db, id); asked; asked = await takeAsked(db, id)) {
        const order = await findOrder(db, id)
        if (order) said.push(await runOrder(order, { ...run, ...asked, cause: 'person' }))
      }
    }
    await runAsked()
    const order = await findOrder(db, id)
    if (!order?.isOn) return { said: said.join(' ') || 'It is off.', result: undefined }
    const byItself = { ...run, who: SCHEDULE, isDry: false, beyondBrake: false }
    if (order.definition.starts.by === 'event') {
      const { resources, toldTo } = await madeSince(db, order.toldTo)
      if (resources.length) said.push(await runOrder(order, { ...byItself, cause: 'event' }))
      else if (toldTo > order.toldTo) await setOrder(db, id, { toldTo })
    }
    if (isRound && order.definition.starts.by !== 'person') said.push(await runOrder(order, { ...byItself, cause: 'schedule' }))
    // what was asked for meanwhile does not wait for the next round
    await runAsked()
    return { said: said.join(' ') || 'Nothing was made since.', result: undefined }
  },
  async findOut({ order }, { services }) {
    await endLeftRuns(services.database.db, order)
    return 'The process ended over it; the next run finds out what became of it, and goes on.'
  },
}
