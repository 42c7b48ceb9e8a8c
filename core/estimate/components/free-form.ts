import { divide, input, multiply } from '../../working/working'
import { number, words } from './field'
import type { ComponentKind } from './kind'

const once = 'once'

/** Free-form line: an amount that no rate card has, such as someone's work or an offer, in the card's currency. */
export const freeForm: ComponentKind = {
  kind: 'free-form',
  label: 'Free-form line',
  words: ['free-form', 'other cost', 'work', 'consulting', 'training', 'offer', 'migration', 'fixed amount'],
  needs: [],
  outside: true,
  fields: [
    { name: 'what', label: 'what', type: 'text', maxLength: 120, usual: '', help: 'What is paid for.', column: 'size' },
    number('amount', 'amount', { column: 'amount', max: 1e12, usual: '0', help: 'For each interval, in the currency of the card.' }),
    words('interval', 'paid', ['a month', 'a quarter', 'a year', 'an hour', once], 'How often; once is paid upfront.', 'runs'),
  ],
  price(b) {
    const amount = b.number('amount')
    const label = b.text('what') || 'free-form'
    const interval = b.text('interval')
    const unitPrice = { value: b.typed('amount').likely.toFixed(), per: interval.replace(/^an? /, '') }
    if (interval === once) return { recurring: [], once: [amount], unitPrice }
    if (interval === 'an hour') return { recurring: [multiply(label, [amount, b.allHours()])], unitPrice }
    const months = { 'a month': 1, 'a quarter': 3, 'a year': 12 }[interval]!
    return { recurring: [months === 1 ? amount : divide(label, [amount, input('months', months)])], unitPrice }
  },
}
