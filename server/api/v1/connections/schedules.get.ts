import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { rateCard } from '../../../jobs/kinds/rate-card'
import { jobsOf } from '../../../stores/jobs'

/** How often connections are asked for rate cards, where one was asked or is to be. */
export default route(operations.connections.schedules, async ({ database }) => {
  const jobs = [...(await jobsOf(database.db, rateCard.kind)).values()].filter(job => job.every || job.endedAt)
  return {
    schedules: jobs.map(({ argument, every, endedAt, outcome }) => ({
      connection: rateCard.argument.parse(argument).connection,
      everyHours: every ? every.count * HOURS[every.unit] : 0,
      lastAskedAt: endedAt,
      lastSaid: outcome,
    })),
  }
})

const HOURS = { minute: 1 / 60, hour: 1, day: 24, week: 168, month: 720 }
