import * as contracts from '../../shared/contracts/maintenance'
import { operation } from './operation'

export const maintenance = {
  backup: operation(
    'maintenance',
    'get',
    '/maintenance/backup',
    'Everything that is kept, as one file; for whoever can read the data folder.',
    { reach: 'company', reply: 'file' },
  ),
  check: operation('maintenance', 'get', '/maintenance/check', 'Reads everything that is kept and names what is damaged.', {
    reach: 'company',
    reply: contracts.checked,
  }),
}
