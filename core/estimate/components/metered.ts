import { chargedFor, describeLine } from '../../ratecard/describe'
import { findSku, type RateCard } from '../../ratecard/rate-card'
import { choice, number } from './field'
import type { ComponentKind } from './kind'

/** SKUs of a region with what is priced by quantity alone. */
const skusOf = (card: RateCard, region: string) => card.prices.filter(line => line.region === region && line.meter !== 'support-share').map(line => line.sku)

/** Metered line: any line of a rate card × a quantity in the line's own unit and tiers. */
export const metered: ComponentKind = {
  kind: 'metered',
  label: 'Metered line',
  words: ['metered line', 'rate card line', 'cache', 'warehouse', 'search', 'keys', 'certificates', 'content delivery', 'queue', 'anything else'],
  needs: [],
  fields: [
    choice('sku', 'rate card line', skusOf, { column: 'size', help: 'Any line of the rate card in this region.' }),
    number('quantity', 'quantity', { column: 'amount', max: 1e12, usual: '1', help: 'A month, in the line\'s own unit.' }),
  ],
  price(b) {
    const line = findSku(b.card, b.text('sku')) ?? b.refuse('sku', `the card has no line «${b.text('sku')}»`)
    const quantity = b.number('quantity')
    return {
      recurring: [b.charge(describeLine(line, b.card), line, { ...quantity, ...(quantity.op === 'input' && { unit: line.unit }) })], unitPrice: { value: line.tiers[0]!.price, per: line.unit },
      amounts: [{ unit: line.unit, quantity }], notices: [`${describeLine(line, b.card)}, charged for ${chargedFor(line) === 'existing' ? 'existing' : 'use'}.`],
    }
  },
}
