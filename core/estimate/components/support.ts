import { variantChoice } from './field'
import type { ComponentKind } from './kind'

/**
 * Support plan: the larger of its least charge and its graduated share of the month's other rows of the same provider, before uplifts.
 */
export const support: ComponentKind = {
  kind: 'support',
  label: 'Support plan',
  words: ['support', 'support plan', 'help', 'service contract'],
  needs: ['support-share'],
  last: true,
  outside: true,
  fields: [
    variantChoice('plan', 'plan', 'support-share', {
      column: 'size',
      help: 'The quicker someone answers, the larger the share of the spend.',
    }),
  ],
  price(b) {
    const line = b.line('support-share', b.text('plan'), 'plan')
    return {
      recurring: [b.charge(`share of the month, ${b.text('plan')}`, line, b.rest)],
      unitPrice: { value: line.tiers[0]!.price, per: 'spend' },
    }
  },
}
