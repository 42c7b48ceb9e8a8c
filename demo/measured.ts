import type { MetricName } from '../core/measured/metrics'
import { weekday, type Day } from '../core/time/day'
import type { CloudResource, Use } from './inventory'
import { disksLeftBehind, idleLoadBalancer, rehearsalHours, tooLarge, tooSwift } from './planted'
import { drawn } from './random'
import { traffic } from './traffic'

/** What the cloud measures of each kind of resource. */
export const measuredOfKind: Partial<Record<Use['kind'], readonly MetricName[]>> = {
  server: ['cpu', 'memory'],
  database: ['cpu', 'memory', 'operations'],
  disk: ['operations', 'throughput', 'attached'],
  'load balancer': ['passed'],
}

/** More happens by day than by night. */
const byDay = (hour: number) => 0.4 + 0.6 * Math.max(0, Math.sin(((hour - 5) / 24) * 2 * Math.PI + 0.35))

const hoursOfDay = Array.from({ length: 24 }, (_, hour) => byDay(hour))

/** How busy a resource is in the hours of a day: 1 at its busiest. */
function busyOn({ environment, seasonal }: CloudResource, day: Day): number[] {
  if (environment !== 'rehearsal') {
    const season = seasonal ? Math.min(1, traffic(day) / 1.6) : 0.9
    return hoursOfDay.map(level => level * season)
  }
  const isWeekend = weekday(day) % 6 === 0
  return hoursOfDay.map((_, hour) => (isWeekend || hour < rehearsalHours.from || hour >= rehearsalHours.to ? 0 : 0.8))
}

/** What was measured of a resource on a day (UTC), hour by hour; null where it has no such metric, or stood still. */
export function measuredOn(resource: CloudResource, metric: MetricName, day: Day): number[] | null {
  const { use, name, id } = resource
  if (!measuredOfKind[use.kind]?.includes(metric)) return null
  if (use.kind === 'database' && use.stopped && day >= use.stopped) return null
  if (metric === 'attached') return hoursOfDay.map(() => (name.startsWith(disksLeftBehind.machine) ? 0 : 1))
  const planted = tooLarge.find(({ namesBegin }) => name.startsWith(namesBegin))
  const isTooSwift = name.startsWith(tooSwift.namesBegin)
  const own = drawn(metric, id)
  const ofDay = drawn(metric, id, day)
  return busyOn(resource, day).map((busy, hour) => {
    // a little up or down, another way each hour
    const noise = 1 + 0.06 * Math.sin(ofDay * 1000 + hour * 7)
    const level = busy * noise
    switch (metric) {
      case 'cpu':
        return rounded(0.7 + (planted ? planted.cpu / 1.1 : 48 + 30 * own) * level)
      case 'memory':
        return rounded((planted ? planted.memory / 1.1 : 58 + 18 * own) * noise)
      case 'operations':
        return rounded(2 + (isTooSwift ? tooSwift.operations / 1.1 : mostOf(use, metric) * (0.6 + 0.4 * own)) * level, 1)
      case 'throughput':
        return rounded(0.1 + (isTooSwift ? tooSwift.throughput / 1.1 : mostOf(use, metric) * (0.6 + 0.4 * own)) * level)
      case 'passed':
        return name === idleLoadBalancer ? 0 : rounded(0.02 + 9 * level * (0.5 + own), 1000)
    }
  })
}

const rounded = (value: number, steps = 10) => Math.round(value * steps) / steps

/** The operations or MB a second that resources of a kind are asked for in their busiest hours. */
function mostOf(use: Use, metric: 'operations' | 'throughput'): number {
  if (use.kind === 'database') return 2600
  const isSmall = use.kind === 'disk' && use.variant.startsWith('plain')
  if (metric === 'operations') return isSmall ? 240 : 2300
  return isSmall ? 30 : 96
}
