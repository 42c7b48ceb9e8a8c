import { findPrice, variantName, variantsOf } from '../../ratecard/find-price'
import type { RateCard } from '../../ratecard/rate-card'
import { input, largerOf, subtract } from '../../working/working'
import { choice, countField, number } from './field'
import type { ComponentKind } from './kind'

const products = (card: RateCard, region: string) => [
  ...variantsOf(card, 'licence-seat', region),
  ...variantsOf(card, 'licence-core', region),
]

/** Subscriptions and licences per seat or core; those already held are brought along where the card allows it. */
export const licence: ComponentKind = {
  kind: 'licence',
  label: 'Licences and seats',
  words: ['licence', 'license', 'subscription', 'seat', 'core licence', 'bring your own licence', 'saas'],
  needs: ['licence-seat'],
  fields: [
    choice('product', 'product', products, {
      column: 'size',
      help: 'What is licensed; by seat or by core, as the card has it.',
      means: (value, card, region) => ({
        meter: findPrice(card, 'licence-seat', region, value) ? 'licence-seat' : 'licence-core',
        variant: value,
        option: variantName,
      }),
    }),
    countField('Seats or cores that are needed.', { label: 'needed', max: 1_000_000 }),
    number('held', 'held already', {
      max: 1_000_000,
      whole: true,
      usual: '0',
      help: 'Your own licences that may be brought along: they are not paid again.',
    }),
  ],
  price(b) {
    const product = b.text('product')
    const line = findPrice(b.card, 'licence-seat', b.region, product) ?? b.line('licence-core', product, 'product')
    if (line.includes?.broughtAlong === '0' && b.typed('held').high.gt(0))
      b.refuse('held', `${b.card.provider} does not let you bring your own licences of ${product}`)
    const count = b.number('count')
    const bought = largerOf('bought', [subtract('needed less held', [count, b.number('held')]), input('none', 0)])
    const per = line.meter === 'licence-seat' ? 'seat' : 'core'
    return {
      recurring: [b.charge(`${product}, per ${per}`, line, bought)],
      unitPrice: { value: line.tiers[0]!.price, per },
      count,
      amounts: [{ unit: per, quantity: count }],
    }
  },
}
