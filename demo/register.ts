import type { Lookup } from '../core/spend/lookup'
import { addDays, monthOf, type Day } from '../core/time/day'
import type { BusinessMeasure, MeasureValue } from '../core/unit-cost/business-measure'
import { FIRST_DAY, months, TODAY } from './calendar'
import { drawn, wobble } from './random'
import { traffic } from './traffic'

const always = { from: null, until: null }
const application = (key: string, name: string, criticality: string, stage: string) => ({
  ...{ key, ...always, values: { application: name, criticality, stage } },
})
/** What the register of applications knows of each product; it still lists one that was taken out, and lacks two that run. */
export const applications: Lookup = {
  by: 'Tags/product',
  fields: ['application', 'criticality', 'stage'],
  entries: [
    application('booking-engine', 'Booking engine', 'sailing stops', 'in use'),
    application('passenger-app', 'Passenger app', 'passengers notice', 'in use'),
    application('loyalty', 'Loyalty', 'can wait', 'in use'),
    application('departure-boards', 'Departure boards', 'passengers notice', 'in use'),
    application('ticket-scanner', 'Ticket scanner', 'sailing stops', 'in use'),
    application('freight-desk', 'Freight desk', 'sailing stops', 'in use'),
    application('customs-link', 'Customs link', 'sailing stops', 'in use'),
    application('crew-roster', 'Crew roster', 'sailing stops', 'in use'),
    application('maintenance-log', 'Maintenance log', 'can wait', 'being replaced'),
    application('data-lake', 'Data lake', 'can wait', 'in use'),
    application('identity', 'Identity', 'sailing stops', 'in use'),
    application('monitoring', 'Monitoring', 'passengers notice', 'in use'),
    { key: 'vessel-*', match: 'pattern', ...always, values: { application: 'Vessel telemetry', criticality: 'passengers notice' } },
    application('build-farm', 'Build farm', 'can wait', 'in use'),
    application('intranet', 'Intranet', 'can wait', 'being replaced'),
    application('document-store', 'Document store', 'can wait', 'in use'),
    application('demand-forecast', 'Demand forecast', 'can wait', 'in use'),
    application('tide-tables', 'Tide tables', 'can wait', 'taken out'),
  ],
}

/** Bookings by the day and by where they are made: ever more of them in the app. */
function bookings(): MeasureValue[] {
  const values: MeasureValue[] = []
  for (let day: Day = FIRST_DAY, n = 0; day < TODAY; day = addDays(day, 1), n++) {
    const all = 9400 * traffic(day) * wobble(0.05, 'bookings', day)
    const inApp = 0.24 + (0.14 * n) / 400
    values.push({ centre: 'booking', date: day, value: String(Math.round(all * (1 - inApp))) })
    values.push({ centre: 'passenger-app', date: day, value: String(Math.round(all * inApp)) })
  }
  return values
}

/** Crossings of the ships: the timetable has a summer and a winter. */
function crossings(): MeasureValue[] {
  const values: MeasureValue[] = []
  for (let day: Day = FIRST_DAY; day < TODAY; day = addDays(day, 1)) {
    const month = Number(day.slice(5, 7))
    const plan = month >= 5 && month <= 9 ? 212 : 148
    values.push({ centre: 'telemetry', date: day, value: String(Math.round(plan * (1 - 0.06 * drawn('weather', day)))) })
  }
  return values
}

/** Containers by the month, as the freight desk counts them when a month is over. */
const containers = (): MeasureValue[] =>
  months
    .filter(month => month < monthOf(TODAY))
    .flatMap(month => [
      { centre: 'freight-desk', date: month, value: String(Math.round(9400 * wobble(0.12, 'containers', month))) },
      { centre: 'customs', date: month, value: String(Math.round(3100 * wobble(0.15, 'customs', month))) },
    ])

/** What the register tells of the business. */
export const businessMeasures = (): BusinessMeasure[] => [
  { name: 'bookings', unit: 'booking', grain: 'day', tree: null, values: bookings() },
  { name: 'crossings', unit: 'crossing', grain: 'day', tree: null, values: crossings() },
  { name: 'containers', unit: 'container', grain: 'month', tree: null, values: containers() },
]
