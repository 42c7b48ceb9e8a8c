import { expect, it } from 'vitest'
import { Decimal } from '../../../core/money/decimal'
import { AGAIN_WITHIN_DAYS, madeAgain, type Gone, type Newcomer } from '../../../core/opportunity/made-again'
import { addDays } from '../../../core/time/day'

const DAY = '2026-10-10'
const gone = (id: string, more: Partial<Gone> = {}): Gone => ({
  ...{ id, name: id, provider: 'P', subAccount: 'live', currency: 'EUR', skus: ['S'], day: DAY },
  ...more,
})
const newcomer = (resourceId: string, more: Partial<Newcomer> = {}): Newcomer => ({
  ...{ resourceId, name: resourceId, provider: 'P', subAccount: 'live', skus: ['S'], since: DAY, currency: 'EUR' },
  amount: new Decimal('1.5'),
  ...more,
})
const answers = (all: Gone[], newcomers: Newcomer[]) =>
  Object.fromEntries([...madeAgain(all, newcomers)].map(([id, list]) => [id, list.map(({ resourceId }) => resourceId)]))

it('goes by the name wherever it is now, whatever it is charged under', () => {
  const elsewhere = newcomer('new', { name: 'Rig', subAccount: 'build', skus: ['T'] })
  expect(answers([gone('rig')], [elsewhere])).toEqual({ rig: ['new'] })
  // also what is called like something of the language
  expect(answers([gone('constructor')], [newcomer('x', { name: 'constructor', skus: [] })])).toEqual({ constructor: ['x'] })
})

it('goes by the SKU in the same sub account, once for each that is gone, the first first', () => {
  const two = [gone('later', { day: addDays(DAY, 1) }), gone('first')]
  const came = [
    newcomer('c', { since: addDays(DAY, 3) }),
    newcomer('a', { since: addDays(DAY, 2) }),
    newcomer('d', { since: addDays(DAY, 4) }),
  ]
  expect(answers(two, came)).toEqual({ first: ['a'], later: ['c'] })
  expect(answers(two, [newcomer('x', { subAccount: 'build' }), newcomer('y', { skus: ['T'] })])).toEqual({})
})

it('takes nothing of another provider or currency, from before, or much later', () => {
  const of = (more: Partial<Newcomer>) => answers([gone('rig')], [newcomer('x', { name: 'rig', ...more })])
  expect(of({ provider: 'Q' })).toEqual({})
  expect(of({ currency: 'USD' })).toEqual({})
  expect(of({ since: addDays(DAY, -1) })).toEqual({})
  expect(of({ since: DAY })).toEqual({ rig: ['x'] })
  expect(of({ since: addDays(DAY, AGAIN_WITHIN_DAYS) })).toEqual({ rig: ['x'] })
  expect(of({ since: addDays(DAY, AGAIN_WITHIN_DAYS + 1) })).toEqual({})
})

it('takes names before kinds, and in the order of days, then of ids', () => {
  const sameDay = [gone('b'), gone('a')]
  const came = [newcomer('y', { since: addDays(DAY, 2) }), newcomer('x', { since: addDays(DAY, 2) })]
  expect(answers(sameDay, came)).toEqual({ a: ['x'], b: ['y'] })
  // what comes first is of its kind, what comes later has its name: the first answers the other
  const named = newcomer('later', { name: 'a', since: addDays(DAY, 5) })
  expect(answers(sameDay, [newcomer('early', { since: addDays(DAY, 1) }), named])).toEqual({ a: ['later'], b: ['early'] })
  // two under the name of one
  expect(answers([gone('a')], [named, newcomer('again', { name: 'A', since: addDays(DAY, 9) })])).toEqual({ a: ['later', 'again'] })
  expect(answers([gone('a', { skus: ['R', 'S'] })], [newcomer('x', { skus: ['S', 'T'] })])).toEqual({ a: ['x'] })
})
