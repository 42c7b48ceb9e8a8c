import { LOCALE } from './locale'
import type { MeasurementsTaken } from '../contracts/measurements'

/** So many refused rows are named one by one. */
const MOST_NAMED = 5
const many = (count: number, one: string, more: string) => `${count.toLocaleString(LOCALE)} ${count === 1 ? one : more}`

/** What became of a file of measurements, in words. */
export function measurementsSaid({ rows, refused, wrong, days, resources, unknown, unknownNames }: MeasurementsTaken): string {
  const named = wrong.slice(0, MOST_NAMED).map(({ line, why }) => `line ${line}: ${why}`)
  const rest = unknown > unknownNames.length ? ` and ${many(unknown - unknownNames.length, 'other', 'others')}` : ''
  return [
    `measurements of ${many(resources, 'resource', 'resources')} on ${many(days, 'day', 'days')}, from ${many(rows - refused, 'row', 'rows')}`,
    ...(refused ? [`${many(refused, 'row was', 'rows were')} refused: ${named.join('; ')}${refused > named.length ? ' …' : ''}`] : []),
    ...(unknown ? [`${many(unknown, 'resource is', 'resources are')} on no bill: ${unknownNames.join(', ')}${rest}`] : []),
  ].join('. ')
}
