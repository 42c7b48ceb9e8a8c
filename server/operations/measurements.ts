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
    'A file of measurements, as CSV, plain or gzip: rows that do not fit are refused one by one; its hours replace those that came before.',
    { reach: 'company', query: contracts.measurementsQuery, body: 'bytes', reply: contracts.measurementsTaken },
  ),
  drop: operation('savings', 'delete', '/measurements', 'Takes away all measurements that came as files.', {
    reach: 'company',
    reply: contracts.measurementsDropped,
  }),
}
