import { multiply } from '../../working/working'
import { countField, hoursField } from './field'
import type { ComponentKind } from './kind'

/** A gateway that is kept for later: charged for every hour, whatever passes. */
export const parking: ComponentKind = {
  kind: 'parking',
  label: 'Parked gateways',
  words: ['parked', 'spare'],
  needs: ['gateway-hour'],
  fields: [hoursField('Charged for every hour it exists.'), countField('How many.')],
  price(b) {
    const line = b.line('gateway-hour', null, 'count')
    const hours = multiply('hours of all', [b.number('count'), b.hours()], 'h')
    return {
      recurring: [b.charge('existing', line, hours)],
      unitPrice: { value: line.tiers[0]!.price, per: 'h' },
      count: b.number('count'),
      unitHours: hours,
    }
  },
}
