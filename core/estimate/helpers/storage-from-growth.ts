import { add, divide, input, multiply } from '../../working/working'
import { number } from '../components/field'
import type { Helper } from './helper'

/** Storage that grows: what is there now and, on average over the months, half of what comes. */
export const storageFromGrowth: Helper = {
  id: 'storage-from-growth',
  label: 'from growth',
  fills: ['object-storage.storageGb', 'disk.storageGb', 'database.storageGb', 'file-share.storageGb', 'snapshot.protectedGb'],
  fields: [
    number('now', 'there now', { unit: 'GB', max: 1e9, usual: '500', help: 'At the beginning.' }),
    number('growth', 'comes a month', { unit: 'GB', max: 1e9, usual: '40', help: 'More every month.' }),
    number('months', 'months looked at', { max: 600, usual: '12', help: 'The average over them is taken.' }),
  ],
  make: ({ number: n }) =>
    add(
      'GB on average',
      [n('now'), divide('half of what comes', [multiply('comes in all', [n('growth'), n('months')]), input('on average half', 2)])],
      'GB',
    ),
}
