import { sleepsIn } from '../../core/opportunity/measured/quiet-hours'
import type { Day } from '../../core/time/day'
import type { CloudState } from './state'

/** Of each hour of a day, whether a resource runs by what its hours were set to. */
export function runsIn({ schedules, awake }: Pick<CloudState, 'schedules' | 'awake'>, id: string, day: Day): boolean[] {
  const own = schedules[id] ?? []
  const isStarted = awake[id]?.includes(day)
  return Array.from({ length: 24 }, (_, hour) => {
    if (isStarted) return true
    const set = own.findLast(one => one.day < day || (one.day === day && one.hour <= hour))
    return !set || !sleepsIn(set.asleep, day, hour)
  })
}

/** How many hours that is. */
export const runningHours = (state: Pick<CloudState, 'schedules' | 'awake'>, id: string, day: Day): number =>
  runsIn(state, id, day).filter(runs => runs).length
