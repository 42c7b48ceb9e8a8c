import { divide, input, multiply } from '../../working/working'
import { number } from '../components/field'
import type { Helper } from './helper'

/** Transfer that visits or messages cause: size × how many a day × days, from kB to GB (a million kB). */
export const transferFromVisits: Helper = {
  id: 'transfer-from-visits',
  label: 'from page or message size × visits',
  fills: ['internet-transfer.sentGb', 'load-balancer.balancedGb', 'gateway.passedGb', 'internal-transfer.sentGb'],
  fields: [
    number('kilobytes', 'page or message', {
      unit: 'kB',
      max: 1e9,
      usual: '850',
      help: 'What is sent for one visit or message, pictures included.',
    }),
    number('visits', 'visits or messages a day', { max: 1e12, usual: '35000', help: 'On an ordinary day.' }),
    number('days', 'days a month', { max: 31, usual: '30.4', help: '30.4 for every day.' }),
  ],
  make: ({ number: n }) =>
    divide('GB a month', [multiply('kB a month', [n('kilobytes'), n('visits'), n('days')]), input('kB in a GB', 1_000_000)], 'GB'),
}
