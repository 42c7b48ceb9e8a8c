import { multiply } from '../../working/working'
import { countField, hoursField, number } from './field'
import type { ComponentKind } from './kind'

/** Load balancers: charged per hour for existing, and where the card has it per GB that they pass on. */
export const loadBalancer: ComponentKind = {
  kind: 'load-balancer',
  label: 'Load balancers',
  words: ['load balancer', 'load balancing', 'balancer', 'reverse proxy', 'proxy'],
  needs: ['load-balancer-hour'],
  fields: [
    number('balancedGb', 'passes on', { unit: 'GB', column: 'amount', max: 100_000_000, usual: '100', help: 'In a month.' }),
    hoursField('Charged for every hour it exists.'),
    countField(),
  ],
  price(b) {
    const line = b.line('load-balancer-hour', null, 'count')
    const [count, hours] = [b.number('count'), b.hours()]
    const passed = b.findLine('load-balancer-gb')
    return {
      recurring: [
        b.charge('existing', line, multiply('hours of all', [count, hours], 'h')),
        ...(passed ? [b.charge('passed on', passed, b.number('balancedGb'))] : []),
      ],
      unitPrice: { value: line.tiers[0]!.price, per: 'h' },
      count,
      unitHours: multiply('hours of all', [count, hours], 'h'),
    }
  },
}
