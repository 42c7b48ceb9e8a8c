import { manyOf } from '../../core/text/many-of'
import type { MeasurementsTaken } from '../contracts/measurements'

/** So many refused rows are named one by one. */
const MOST_NAMED = 5

/** What became of a file of measurements, in words. */
export function measurementsSaid({ rows, refused, wrong, days, resources, unknown, unknownNames }: MeasurementsTaken): string {
  const named = wrong.slice(0, MOST_NAMED).map(({ line, why }) => `line ${line}: ${why}`)
  const rest = unknown > unknownNames.length ? ` and ${manyOf(unknown - unknownNames.length, 'other', 'others')}` : ''
  return [
    `measurements of ${manyOf(resources, 'resource', 'resources')} on ${manyOf(days, 'day', 'days')}, from ${manyOf(rows - refused, 'row', 'rows')}`,
    ...(refused ? [`${manyOf(refused, 'row was', 'rows were')} refused: ${named.join('; ')}${refused > named.length ? ' …' : ''}`] : []),
    ...(unknown ? [`${manyOf(unknown, 'resource is', 'resources are')} on no bill: ${unknownNames.join(', ')}${rest}`] : []),
  ].join('. ')
}
