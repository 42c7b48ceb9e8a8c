import { addDays, daysBetween, type Day } from '../time/day'
import { HOURS_A_DAY, type Hourly } from './hourly'
import { metricNames, type MetricName } from './metrics'

/** So many days are looked back on hour by hour. */
export const HOURLY_DAYS = 30

/**
 * What was measured of many resources over the same days: `places` has for each of them, metric by metric, where its hours begin; −1 for
 * none.
 */
export type MeasuredTable = { from: Day; resources: readonly string[]; places: Int32Array; values: Float32Array }

/** What was measured of some resources by a metric on a day: 24 hours of each. */
export type MeasuredBlockOf = { metric: MetricName; day: Day; hours: ReadonlyMap<string, Float32Array> }

export const nothingMeasured: MeasuredTable = {
  ...{ from: '1970-01-01', resources: [], places: new Int32Array(0), values: new Float32Array(0) },
}

/** So many series of hours are made room for at first. */
const FIRST_ROOM = 256
const LENGTH = HOURLY_DAYS * HOURS_A_DAY

/**
 * Puts what was measured beside each other, over the days up to the newest. Where several tell an hour of a resource, the later told holds;
 * what is of other days is left out.
 * @param room makes the memory that hours lie in.
 */
export class MeasuredTableBuilder {
  readonly #from: Day
  #placeOf = new Map<string, number>()
  #cells: number[] = []
  #used = 0
  #values: Float32Array = new Float32Array(0)

  constructor(
    newest: Day,
    private readonly room: (size: number) => Float32Array = size => new Float32Array(size),
  ) {
    this.#from = addDays(newest, 1 - HOURLY_DAYS)
  }

  add({ metric, day, hours }: MeasuredBlockOf): void {
    const at = daysBetween(this.#from, day) * HOURS_A_DAY
    if (at < 0 || at >= LENGTH) return
    const column = metricNames.indexOf(metric)
    for (const [id, own] of hours) {
      let place = this.#placeOf.get(id)
      if (place === undefined) {
        place = this.#placeOf.size
        this.#placeOf.set(id, place)
        for (let i = 0; i < metricNames.length; i++) this.#cells.push(-1)
      }
      const cell = place * metricNames.length + column
      if (this.#cells[cell] === -1) this.#cells[cell] = this.#newSeries()
      const start = this.#cells[cell]! + at
      for (let hour = 0; hour < HOURS_A_DAY; hour++) if (!Number.isNaN(own[hour]!)) this.#values[start + hour] = own[hour]!
    }
  }

  #newSeries(): number {
    const start = this.#used
    this.#used += LENGTH
    if (this.#used > this.#values.length) {
      const larger = this.room(Math.max(this.#values.length * 2, FIRST_ROOM * LENGTH)).fill(NaN)
      larger.set(this.#values)
      this.#values = larger
    }
    return start
  }

  table(): MeasuredTable {
    return { from: this.#from, resources: [...this.#placeOf.keys()], places: Int32Array.from(this.#cells), values: this.#values }
  }
}

/** Finds in a table what was measured of a resource by a metric; null where nothing was. */
export type MeasuredOf = (resource: string, metric: MetricName) => Hourly | null
export function measuredIn({ from, resources, places, values }: MeasuredTable): MeasuredOf {
  const placeOf = new Map(resources.map((id, place) => [id, place]))
  return (resource, metric) => {
    const place = placeOf.get(resource)
    const start = place === undefined ? -1 : places[place * metricNames.length + metricNames.indexOf(metric)]!
    return start < 0 ? null : { from, values: values.subarray(start, start + LENGTH) }
  }
}
