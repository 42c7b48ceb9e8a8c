import { number } from './field'
import type { ComponentKind } from './kind'

/** Transfer to the internet: in tiers, with a free allowance that all rows share; what comes in is free. */
export const internetTransfer: ComponentKind = {
  kind: 'internet-transfer',
  label: 'Outgoing transfer',
  words: [
    'outgoing traffic',
    'outbound traffic',
    'outbound',
    'internet transfer',
    'egress',
    'network',
    'bandwidth',
    'data out',
    'data transfer',
    'traffic',
  ],
  needs: ['transfer-out-gb'],
  fields: [
    number('sentGb', 'sent out', {
      unit: 'GB',
      column: 'amount',
      max: 100_000_000,
      usual: '100',
      help: 'To the internet, in a month. What comes in is not charged. Its helper makes it from page size × visits.',
    }),
  ],
  price(b) {
    const line = b.line('transfer-out-gb', null, 'sentGb')
    return {
      recurring: [b.charge('outgoing transfer', line, b.number('sentGb'))],
      unitPrice: { value: line.tiers[0]!.price, per: 'GB' },
      amounts: [{ unit: 'GB', quantity: b.number('sentGb') }],
    }
  },
}
