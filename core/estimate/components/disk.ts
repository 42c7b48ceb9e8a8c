import { findPrice, variantsOf } from '../../ratecard/rate-card'
import { priceQuantity } from '../../ratecard/price-quantity'
import { input, multiply } from '../../working/working'
import { onDemand } from '../ways-to-pay'
import { amount, missingPrice, type ComponentKind } from './kind'

/** Disks: charged per GB they are large, full or empty. */
export const disk: ComponentKind = {
  kind: 'disk',
  label: 'Disks',
  words: ['disk', 'block storage', 'volume', 'drive'],
  fields: [
    { name: 'class', label: 'class', type: 'choice', column: 'size', help: 'Performance class.', options: (card, region) => variantsOf(card, 'disk-gb-month', region), usual: (card, region) => variantsOf(card, 'disk-gb-month', region)[0] ?? '' },
    { name: 'storageGb', label: 'size of each', unit: 'GB', type: 'number', column: 'amount', min: 1, max: 65536, usual: '80', help: 'Charged in full, also while it is empty.' },
    { name: 'count', label: 'count', type: 'number', column: 'count', min: 0, max: 10000, whole: true, usual: '1', help: 'How many of them.' },
  ],
  price(inputs, { card, region }) {
    const line = findPrice(card, 'disk-gb-month', region, inputs.class!)
    if (!line) return missingPrice('class', card, region, `disks «${inputs.class}»`)
    const [count, gb] = [amount(inputs.count!), amount(inputs.storageGb!)]
    const quantity = multiply('GB of all', [input('count', count), input('size of each', gb, 'GB')], 'GB')
    return { ok: true, ways: [onDemand(priceQuantity(`disks, ${inputs.class}`, line, quantity, count.times(gb)))], unitPrice: { value: line.tiers[0]!.price, per: 'GB' } }
  },
}
