import { variantsOf } from '../../ratecard/find-price'
import { choice, meansVariant, number } from './field'
import type { ComponentKind } from './kind'

const noFeature = 'none'

/** Identity directory: active users in tiers, the first of them free when one counts on it; extra features for each user who has them. */
export const identity: ComponentKind = {
  kind: 'identity',
  label: 'Identity directory',
  words: ['identity', 'directory', 'sign-in', 'login', 'authentication', 'users'],
  needs: ['identity-user'],
  fields: [
    number('users', 'active users a month', {
      column: 'amount',
      max: 1e9,
      whole: true,
      usual: '1000',
      help: 'Who signs in at least once.',
    }),
    choice('feature', 'extra feature', (card, region) => [noFeature, ...variantsOf(card, 'identity-feature-user', region)], {
      help: 'Charged for each user who has it.',
      means: meansVariant('identity-feature-user', noFeature),
    }),
    number('featureUsers', 'users with it', { max: 1e9, whole: true, usual: '0', help: 'Who has the extra feature.' }),
  ],
  price(b) {
    const line = b.line('identity-user', null, 'users')
    const feature = b.text('feature')
    return {
      recurring: [
        b.charge('active users', line, b.number('users')),
        ...(feature === noFeature
          ? []
          : [b.charge(feature, b.line('identity-feature-user', feature, 'feature'), b.number('featureUsers'))]),
      ],
      unitPrice: { value: line.tiers[0]!.price, per: 'user' },
      amounts: [{ unit: 'users', quantity: b.number('users') }],
    }
  },
}
