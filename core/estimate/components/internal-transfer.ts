import { number, words } from './field'
import type { ComponentKind } from './kind'

const toZone = 'to another zone'
const toRegion = 'to another region'

/** Transfer within the provider: between zones, or between regions. */
export const internalTransfer: ComponentKind = {
  kind: 'internal-transfer',
  label: 'Transfer between zones or regions',
  words: ['inter-region transfer', 'inter-zone transfer', 'replication traffic', 'cross-zone', 'between regions', 'between zones'],
  needs: ['transfer-zone-gb'],
  fields: [
    words('over', 'goes', [toZone, toRegion], 'Each has a price of its own.', 'size'),
    number('sentGb', 'sent', { unit: 'GB', column: 'amount', max: 100_000_000, usual: '100', help: 'In a month; both directions count.' }),
  ],
  price(b) {
    const line = b.line(b.text('over') === toZone ? 'transfer-zone-gb' : 'transfer-region-gb', null, 'over')
    return {
      recurring: [b.charge(b.text('over'), line, b.number('sentGb'))],
      unitPrice: { value: line.tiers[0]!.price, per: 'GB' },
      amounts: [{ unit: 'GB', quantity: b.number('sentGb') }],
    }
  },
}
