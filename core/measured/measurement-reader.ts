import type { WrongLine } from '../text/text-table'
import { dayFromNumber, type Day } from '../time/day'
import { HOURS_A_DAY } from './hourly'
import { isMetric, metricNames, metrics, type MetricName } from './metrics'

/** Columns of a file of measurements. */
export const MEASUREMENT_COLUMNS = ['resource', 'metric', 'unit', 'time', 'value'] as const

/** Whether the heads of a table are those of measurements. */
export const isMeasurementTable = (heads: readonly string[]): boolean =>
  MEASUREMENT_COLUMNS.every(column => heads.some(head => head.trim().toLowerCase() === column))

/** So many wrong lines are told with their reason. */
const MOST_WRONG = 100
const MINUTES_A_DAY = 1440
/** What 32 bits hold. */
const LARGEST = 3.4e38
const instant = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2}(\.\d{1,9})?)?(Z|[+-]\d{2}:\d{2})$/
const number = /^\d+(\.\d+)?([eE][+-]?\d{1,2})?$/

/** What was read of a metric on a day (UTC), by resource. */
export type ReadDay = { metric: MetricName; day: Day; hours: Map<string, Float32Array> }
type OfResource = { hours: Float32Array; minutes: Uint8Array }

/**
 * Reads measurements row by row, each of an instant, into hours: of several in one hour the highest counts, or all of them, as the metric
 * has it. A row that does not fit is refused by itself and named. What is held grows with resources and days, not with rows.
 */
export class MeasurementReader {
  rows = 0
  refused = 0
  readonly wrong: WrongLine[] = []
  #columns: number[] = []
  #days = new Map<string, { metric: MetricName; day: Day; resources: Map<string, OfResource> }>()

  /** @returns why the columns are not those of measurements; null where they are. */
  begin(heads: readonly string[]): string | null {
    const names = heads.map(head => head.trim().toLowerCase())
    const missing = MEASUREMENT_COLUMNS.filter(column => !names.includes(column))
    this.#columns = MEASUREMENT_COLUMNS.map(column => names.indexOf(column))
    return missing.length ? `there is no column ${missing.map(name => `«${name}»`).join(', ')}` : null
  }

  /** @param line counts the heads, as an editor does. */
  row(line: number, cells: readonly string[]): void {
    if (cells.every(cell => cell.trim() === '')) return
    this.rows++
    const [resource, metric, unit, time, value] = this.#columns.map(place => cells[place]?.trim() ?? '') as [
      string,
      string,
      string,
      string,
      string,
    ]
    const why = this.#take(resource, metric, unit, time, value)
    if (why === null) return
    this.refused++
    if (this.wrong.length < MOST_WRONG) this.wrong.push({ line, why })
  }

  /** What was read, by metric and day. */
  days(): ReadDay[] {
    return [...this.#days.values()].map(({ metric, day, resources }) => ({
      ...{ metric, day },
      hours: new Map([...resources].map(([id, { hours }]) => [id, hours])),
    }))
  }

  /** @returns why a row is refused; null where it is taken. */
  #take(resource: string, metric: string, unit: string, time: string, value: string): string | null {
    if (resource === '') return 'it has no resource'
    if (!isMetric(metric)) return `«${metric}» is not measured here: use ${metricNames.join(', ')}`
    const facts = metrics[metric]
    if (unit !== facts.unit) return `${metric} is told in «${facts.unit}», not in «${unit}»`
    const seconds = instant.test(time) ? Date.parse(time) / 1000 : NaN
    if (Number.isNaN(seconds)) return `«${time}» is no time: write a day, a time and its zone, such as 2026-11-03T14:00:00Z`
    if (!number.test(value)) return `«${value}» is no number from 0 on`
    const read = Number(value)
    if (read > LARGEST) return `${value} is more than can be kept`
    if (facts.unit === '%' && read > 100) return `${value} % is more than all of it: tell it of all processors, or all memory, together`
    const minute = Math.floor(seconds / 60)
    const own = this.#of(metric, Math.floor(minute / MINUTES_A_DAY), resource)
    const of = ((minute % MINUTES_A_DAY) + MINUTES_A_DAY) % MINUTES_A_DAY
    if (own.minutes[of >> 3]! & (1 << (of & 7))) return `${metric} of ${resource} is told for that minute already`
    own.minutes[of >> 3]! |= 1 << (of & 7)
    const hour = Math.floor(of / 60)
    const before = own.hours[hour]!
    own.hours[hour] = Number.isNaN(before) ? read : facts.ofHour === 'sum' ? before + read : Math.max(before, read)
    return null
  }

  #of(metric: MetricName, dayNumber: number, resource: string): OfResource {
    const key = `${metric} ${dayNumber}`
    let day = this.#days.get(key)
    if (!day) this.#days.set(key, (day = { metric, day: dayFromNumber(dayNumber), resources: new Map() }))
    let own = day.resources.get(resource)
    if (!own) {
      own = { hours: new Float32Array(HOURS_A_DAY).fill(NaN), minutes: new Uint8Array(MINUTES_A_DAY / 8) }
      day.resources.set(resource, own)
    }
    return own
  }
}
