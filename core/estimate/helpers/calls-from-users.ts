import { multiply } from '../../working/working'
import { number } from '../components/field'
import type { Helper } from './helper'

/** Calls or requests that people cause: users × requests a day × days. */
export const callsFromUsers: Helper = {
  id: 'calls-from-users',
  label: 'from requests per user',
  fills: ['functions.calls', 'object-storage.reads', 'object-storage.writes'],
  fields: [
    number('users', 'users a day', { max: 1e10, usual: '1000', help: 'Who come on an ordinary day.' }),
    number('requests', 'requests of each', { max: 1e6, usual: '20', help: 'Calls that one of them causes in a day.' }),
    number('days', 'days a month', { max: 31, usual: '30.4', help: '30.4 for every day, 21 for working days.' }),
  ],
  make: ({ number: n }) => multiply('calls a month', [n('users'), n('requests'), n('days')]),
}
