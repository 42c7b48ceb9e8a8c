import { multiply } from '../../working/working'
import { countField, hoursField, number } from './field'
import type { ComponentKind } from './kind'

/** Address-translation gateways: charged per hour for existing and per GB for what passes. */
export const gateway: ComponentKind = {
  kind: 'gateway',
  label: 'Gateways',
  words: ['gateway', 'address translation', 'private network', 'nat'],
  needs: ['gateway-hour'],
  fields: [
    number('passedGb', 'passes', { unit: 'GB', column: 'amount', max: 100_000_000, usual: '100', help: 'In both directions, in a month.' }),
    hoursField('Charged for every hour it exists, with or without traffic.'),
    countField('One in each zone keeps traffic within the zone.'),
  ],
  price(b) {
    const [line, passed] = [b.line('gateway-hour', null, 'count'), b.line('gateway-gb', null, 'passedGb')]
    const [count, hours] = [b.number('count'), b.hours()]
    return {
      recurring: [
        b.charge('existing', line, multiply('hours of all', [count, hours], 'h')),
        b.charge('passed', passed, b.number('passedGb')),
      ],
      unitPrice: { value: line.tiers[0]!.price, per: 'h' },
      count,
      unitHours: multiply('hours of all', [count, hours], 'h'),
    }
  },
}
