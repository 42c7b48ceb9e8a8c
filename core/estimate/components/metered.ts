import { chargedFor, describeLine } from '../../ratecard/describe'
import { findSku } from '../../ratecard/find-price'
import type { PriceLine, RateCard } from '../../ratecard/rate-card'
import { input, multiply } from '../../working/working'
import { choice, countField, hoursField, number, type Inputs } from './field'
import type { ComponentKind } from './kind'

/** SKUs of a region with what is priced by quantity alone. */
const skusOf = (card: RateCard, region: string) =>
  card.prices.filter(line => line.region === region && line.meter !== 'support-share').map(line => line.sku)

const isHourly = (line: PriceLine | undefined) => line?.unit === 'Hours'
const lineOf = (inputs: Inputs, card: RateCard) => findSku(card, inputs.sku ?? '')
/** A line per hour without a quantity of its own is so many of it for so long. */
const byCount = (inputs: Inputs, card: RateCard) => isHourly(lineOf(inputs, card)) && (inputs.quantity ?? '') === ''

/** Metered line: any line of a rate card × a quantity in the line's own unit and tiers; what is priced per hour is counted and runs. */
export const metered: ComponentKind = {
  kind: 'metered',
  label: 'Metered line',
  words: ['metered line', 'rate card line', 'sku', 'price line', 'anything else'],
  needs: [],
  fields: [
    choice('sku', 'rate card line', skusOf, {
      column: 'size',
      help: 'Any line of the rate card in this region.',
      usual: () => '',
      means: (sku, card) => {
        const line = findSku(card, sku)
        return line ? { meter: line.meter, variant: line.variant, option: found => found.sku } : null
      },
    }),
    number('quantity', 'quantity', {
      column: 'amount',
      max: 1e12,
      optional: true,
      follows: true,
      help: "A month, in the line's own unit. Of a line per hour it may stay empty: then count and hours make it.",
      usual: (card, _, inputs) => (isHourly(lineOf(inputs, card)) ? '' : '1'),
      applies: (inputs, card) => !byCount(inputs, card),
    }),
    countField('How many of them, where the line is per hour.', { follows: true, applies: byCount }),
    hoursField('How long each of them runs, where the line is per hour.', { applies: byCount }),
  ],
  price(b) {
    const line = findSku(b.card, b.text('sku')) ?? b.refuse('sku', `the card has no line «${b.text('sku')}»`)
    const words = describeLine(line, b.card)
    const notices = [`${words}, charged for ${chargedFor(line) === 'existing' ? 'existing' : 'use'}.`]
    const unitPrice = { value: line.tiers[0]!.price, per: line.unit }
    if (b.text('quantity') === '' && isHourly(line)) {
      const count = b.number('count')
      const unitHours = multiply('hours of all', [count, b.hours()], 'h')
      return {
        recurring: [b.charge(words, line, unitHours)],
        unitPrice,
        count,
        unitHours,
        amounts: [{ unit: line.unit, quantity: unitHours }],
        notices,
      }
    }
    if (b.text('quantity') === '') b.refuse('quantity', `say how much of it: ${line.unit} a month`)
    const quantity = b.number('quantity')
    return {
      recurring: [b.charge(words, line, { ...quantity, ...(quantity.op === 'input' && { unit: line.unit }) })],
      unitPrice,
      amounts: [{ unit: line.unit, quantity }],
      notices,
      // an hour's charge of one's own counts what the line counts
      ...(isHourly(line) && { count: input('count', 1), unitHours: quantity }),
    }
  },
}
