import { findPrice } from '../../ratecard/find-price'
import { divide, input, multiply } from '../../working/working'
import { number, words } from './field'
import type { ComponentKind } from './kind'

const atEdge = 'at the edge'

/**
 * Functions: calls × seconds × GB, plus a price per call; instances that are kept warm are charged for every hour.
 * (Common practice, no source.)
 */
export const functions: ComponentKind = {
  kind: 'functions',
  label: 'Functions',
  words: ['function', 'functions', 'serverless', 'event', 'scheduled job', 'handler'],
  needs: ['function-gb-second', 'function-call'],
  fields: [
    words('runsAt', 'runs', ['in the region', atEdge], 'In the region, or at the edge near the users.', 'size'),
    number('calls', 'calls a month', {
      column: 'amount',
      max: 1e12,
      usual: '1000000',
      help: 'Its helper makes it from a schedule or from requests per user.',
    }),
    number('seconds', 'each takes', { unit: 's', max: 3600, usual: '0.2', help: 'On average, started ones included.' }),
    number('memoryGb', 'memory', { unit: 'GB', min: 0.0625, max: 64, usual: '0.5', help: 'What is set aside for each call.' }),
    number('warm', 'kept warm', {
      max: 10_000,
      whole: true,
      usual: '0',
      help: 'Instances that wait for calls all month, charged whether they come or not.',
    }),
  ],
  price(b) {
    const variant = b.text('runsAt') === atEdge ? atEdge : null
    if (variant && !findPrice(b.card, 'function-call', b.region, variant))
      b.refuse('runsAt', `${b.card.provider} runs no functions ${variant} in ${b.region}`)
    const [compute, call] = [b.line('function-gb-second', variant, 'runsAt'), b.line('function-call', variant, 'runsAt')]
    const calls = b.number('calls')
    const recurring = [
      b.charge('computing', compute, multiply('GB-seconds', [calls, b.number('seconds'), b.number('memoryGb')], 'GB-s')),
      b.charge('calls', call, divide('millions of calls', [calls, input('in a million', 1_000_000)])),
    ]
    if (b.typed('warm').high.gt(0))
      recurring.push(
        b.charge(
          'kept warm',
          b.line('function-warm-gb-hour', variant, 'warm'),
          multiply('GB-hours', [b.number('warm'), b.number('memoryGb'), b.allHours()]),
        ),
      )
    return { recurring, unitPrice: { value: call.tiers[0]!.price, per: 'M calls' }, amounts: [{ unit: 'calls', quantity: calls }] }
  },
}
