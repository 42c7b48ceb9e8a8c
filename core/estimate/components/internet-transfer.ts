import { zero } from '../../money/decimal'
import { findPrice } from '../../ratecard/rate-card'
import { allowanceOf, priceQuantity } from '../../ratecard/price-quantity'
import { input } from '../../working/working'
import { onDemand } from '../ways-to-pay'
import { amount, missingPrice, type ComponentKind } from './kind'

/** Transfer to the internet: in tiers, with a free allowance that all rows share; what comes in is free. */
export const internetTransfer: ComponentKind = {
  kind: 'internet-transfer',
  label: 'Outgoing transfer',
  words: ['outgoing traffic', 'internet transfer', 'egress', 'network', 'bandwidth', 'data out'],
  fields: [
    { name: 'sentGb', label: 'sent out', unit: 'GB', type: 'number', column: 'amount', min: 0, max: 100_000_000, usual: '100', help: 'To the internet, in a month. What comes in is not charged.' },
  ],
  price(inputs, { card, region, countFreeAllowance, drawn }) {
    const line = findPrice(card, 'transfer-out-gb', region)
    if (!line) return missingPrice('sentGb', card, region, 'outgoing transfer')
    const gb = amount(inputs.sentGb!)
    const before = drawn.get(line.sku) ?? zero
    drawn.set(line.sku, before.plus(gb))
    return { ok: true, ways: [onDemand(priceQuantity('outgoing transfer', line, input('sent out', gb, 'GB'), gb, { before, allowance: allowanceOf(line, countFreeAllowance) }))], unitPrice: { value: line.tiers[0]!.price, per: 'GB' } }
  },
}
