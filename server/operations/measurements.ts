import * as contracts from '../../shared/contracts/measurements'
import { operation } from './operation'

export const measurements = {
  state: operation('savings', 'get', '/measurements', 'What can be measured of resources, and what of it came as files.', {
    reach: 'company',
    reply: contracts.measurementsState,
  }),
  take: operation(
    'savings',
    'put',
    '/measurements',
    'A file of measurements, as CSV, plain or gzip: rows that do not fit are refused by themselves; hours that it tells hold in place of those told before.',
    { reach: 'company', query: contracts.measurementsQuery, body: 'bytes', reply: contracts.measurementsTaken },
  ),
  drop: operation('savings', 'delete', '/measurements', 'Takes away all measurements that came as files.', {
    reach: 'company',
    reply: contracts.measurementsDropped,
  }),
}
