import { variantChoice } from './field'
import { alone, priceQuantity } from '../../ratecard/price-quantity'
import { input, type Working } from '../../working/working'
import type { ComponentKind } from './kind'

/** Support plan: the larger of its least charge and its graduated share of the month's other rows of the same provider, before own charges. */
export const support: ComponentKind = {
  kind: 'support',
  label: 'Support plan',
  words: ['support', 'support plan', 'help', 'service contract'],
  needs: ['support-share'],
  last: true,
  outside: true,
  fields: [variantChoice('plan', 'plan', 'support-share', { column: 'size', help: 'The quicker someone answers, the larger the share of the spend.' })],
  price(b) {
    const line = b.line('support-share', b.text('plan'), 'plan')
    const share: Working = priceQuantity(`share of the month, ${b.text('plan')}`, line, b.rest, alone)
    return {
      recurring: [line.minimumCharge === undefined ? share : { op: 'larger', label: `support, ${b.text('plan')}`, parts: [share, input('least charge a month', line.minimumCharge, undefined, line.sku)] }],
      unitPrice: { value: line.tiers[0]!.price, per: 'spend' },
    }
  },
}
