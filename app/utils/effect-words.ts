import type { Effect } from '../../core/spend/compare'

/** What a change of cost is made of, in words. */
export const effectWords: Readonly<Record<Effect, string>> = {
  quantity: 'more or less used, at the old prices',
  price: 'other prices, for what was used before',
  both: 'both together',
  newAndGone: 'SKUs that came or went',
  corrections: 'corrections of earlier charges',
  tax: 'tax',
  credits: 'credits',
  purchases: 'purchases',
  other: 'other charges without a quantity',
}
