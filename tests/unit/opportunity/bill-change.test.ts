import { expect, it } from 'vitest'
import { Decimal } from '../../../core/money/decimal'
import { billChanges } from '../../../core/opportunity/bill-change'
import { effectNames, type Comparison } from '../../../core/spend/compare'

type Total = Comparison['totals'][number]
const total = (currency: string, before: string, now: string, effects: Partial<Total['effects']> = {}): Total => ({
  ...{ currency, before, now, difference: new Decimal(now).minus(before).toFixed(), perDay: '0' },
  effects: { ...(Object.fromEntries(effectNames.map(name => [name, '0'])) as Total['effects']), ...effects },
})
const seen = (currency: string, now: string, before = '0') => ({ currency, now: new Decimal(now), before: new Decimal(before) })

it('parts a bill’s change into what was saved, what those resources did otherwise, and what all others did', () => {
  // resources acted on: 100 → 55, of which 40 are saved: they would have come to 95. Others: 200 → 230: 20 of use, 10 new
  const acted = [total('EUR', '100', '55')]
  const others = [total('EUR', '200', '230', { quantity: '20', newAndGone: '10' })]
  expect(billChanges(acted, others, [seen('EUR', '40')])).toEqual([
    {
      ...{ currency: 'EUR', before: '300', now: '285' },
      parts: [
        { kind: 'saved', amount: '-40' },
        { kind: 'otherwise', amount: '-5' },
        { kind: 'quantity', amount: '20' },
        { kind: 'newAndGone', amount: '10' },
      ],
    },
  ])
  // what was saved in the days before already changes nothing now
  expect(billChanges(acted, others, [seen('EUR', '40', '38')])[0]!.parts.slice(0, 2)).toEqual([
    { kind: 'saved', amount: '-2' },
    { kind: 'otherwise', amount: '-43' },
  ])
})

it('keeps currencies apart, and says nothing was saved where nothing was done', () => {
  const changes = billChanges([], [total('USD', '1', '2', { price: '1' }), total('EUR', '5', '5')], [])
  expect(changes.map(({ currency, parts }) => [currency, parts])).toEqual([
    ['EUR', []],
    ['USD', [{ kind: 'price', amount: '1' }]],
  ])
  expect(billChanges([], [], [])).toEqual([])
})

it('adds up to the minor unit of what is shown, whatever was cut', () => {
  // 0.004 → 10.006 is shown as 0.00 → 10.01
  const [change] = billChanges([total('EUR', '0.004', '3.337')], [total('EUR', '0', '6.669', { quantity: '3.3345', tax: '3.3345' })], [])
  const sum = change!.parts.reduce((all, { amount }) => all.plus(amount), new Decimal(0))
  expect(sum.toFixed()).toBe('10.01')
  const [yen] = billChanges([], [total('JPY', '0.4', '2.6', { quantity: '2.2' })], [])
  expect(yen!.parts).toEqual([{ kind: 'quantity', amount: '3' }])
})
