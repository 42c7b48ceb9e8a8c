import { findPrice, variantsOf } from '../../ratecard/rate-card'
import { priceQuantity } from '../../ratecard/price-quantity'
import { Decimal } from '../../money/decimal'
import { add, divide, input } from '../../working/working'
import { onDemand } from '../ways-to-pay'
import { amount, missingPrice, type ComponentKind } from './kind'

/** Object storage: charged per GB kept, and for every thousand writes and reads. */
export const objectStorage: ComponentKind = {
  kind: 'object-storage',
  label: 'Object storage',
  words: ['object storage', 'bucket', 'files', 'archive', 'blob'],
  fields: [
    { name: 'class', label: 'class', type: 'choice', column: 'size', help: 'The colder, the cheaper to keep and the dearer to read.', options: (card, region) => variantsOf(card, 'object-gb-month', region), usual: (card, region) => variantsOf(card, 'object-gb-month', region)[0] ?? '' },
    { name: 'storageGb', label: 'kept', unit: 'GB', type: 'number', column: 'amount', min: 0, max: 100_000_000, usual: '500', help: 'On average over the month.' },
    { name: 'writes', label: 'writes a month', type: 'number', min: 0, max: 1e12, whole: true, usual: '0', help: 'Each object put or listed is a write.' },
    { name: 'reads', label: 'reads a month', type: 'number', min: 0, max: 1e12, whole: true, usual: '0', help: 'Each object fetched is a read.' },
  ],
  price(inputs, { card, region }) {
    const kept = findPrice(card, 'object-gb-month', region, inputs.class!)
    if (!kept) return missingPrice('class', card, region, `object storage «${inputs.class}»`)
    const gb = amount(inputs.storageGb!)
    const parts = [priceQuantity('kept', kept, input('kept', gb, 'GB'), gb)]
    for (const [name, meter] of [['writes', 'object-write-1000'], ['reads', 'object-read-1000']] as const) {
      const requests = amount(inputs[name]!)
      if (requests.eq(0)) continue
      const line = findPrice(card, meter, region, inputs.class!)
      if (!line) return missingPrice(name, card, region, `${name} of object storage «${inputs.class}»`)
      const thousands = divide(`thousands of ${name}`, [input(name, requests), input('in a thousand', 1000)])
      parts.push(priceQuantity(name, line, thousands, requests.div(new Decimal(1000))))
    }
    return { ok: true, ways: [onDemand(add(`object storage, ${inputs.class}`, parts))], unitPrice: { value: kept.tiers[0]!.price, per: 'GB' } }
  },
}
