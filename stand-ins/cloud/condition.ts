import type { CloudResource } from '../../demo/inventory'
import { keptForLong, nightPlan } from '../../demo/planted'
import { stretchWords } from '../../core/opportunity/measured/quiet-hours'
import { runsIn } from './running'
import type { CloudState } from './state'
import { addDays, type Day } from '../../core/time/day'

type Lock = { against: 'changes' | 'deletion'; why: string; by: string; since: Day }
type Planned = {
  does: 'stop' | 'start'
  when: string
  last: { at: string; outcome: 'done' | 'refused' | 'nothing to do'; why: string | null } | null
}
export type Condition = { status: string; locks: Lock[]; plan: Planned[] }

const RUNNING = new Set(['Server', 'Database', 'Gateway', 'Load balancer'])

/** How a resource is now: whether it runs, what it is locked against, what is planned for it and how that went the last time. */
export function conditionOf(resource: CloudResource, state: CloudState): Condition {
  const { day, hour } = state
  const isLocked = state.locked.includes(resource.id)
  const asleep = state.schedules[resource.id]?.at(-1)?.asleep ?? []
  const isPlanned = resource.name.startsWith(nightPlan.namesBegin)
  const locks: Lock[] = [
    ...(isPlanned ? [nightPlan.lock] : []),
    ...(keptForLong.names.includes(resource.name) ? [keptForLong.lock] : []),
    ...(isLocked
      ? (['deletion', 'changes'] as const).map(against => ({ against, why: 'it is looked into first', by: 'platform', since: day }))
      : []),
  ]
  const last = (at: number) => `${hour >= at ? day : addDays(day, -1)}T${String(at).padStart(2, '0')}:00:00Z`
  const daily = (at: number) => `every day at ${String(at).padStart(2, '0')}:00`
  return {
    status: !RUNNING.has(resource.type) ? 'there' : runsIn(state, resource.id, day)[hour] ? 'running' : 'stopped',
    locks,
    plan: isPlanned
      ? [
          {
            does: 'stop',
            when: daily(nightPlan.stop),
            last: { at: last(nightPlan.stop), outcome: 'refused', why: 'it is locked against changes' },
          },
          {
            does: 'start',
            when: daily(nightPlan.start),
            last: { at: last(nightPlan.start), outcome: 'nothing to do', why: 'it was running' },
          },
        ]
      : asleep.length
        ? [{ does: 'stop', when: `every week ${stretchWords(asleep)} (UTC)`, last: null }]
        : [],
  }
}
