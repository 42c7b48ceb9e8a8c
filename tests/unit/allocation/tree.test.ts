import { expect, it } from 'vitest'
import { branchOf, rollUp } from '../../../core/allocation/tree'

const centres = [
  ['root', null],
  ['a', 'root'],
  ['a1', 'a'],
  ['a11', 'a1'],
  ['b', 'root'],
].map(([id, parent]) => ({ id: id!, name: id!, parent: parent ?? null, owner: null }))
const amount = (centre: string, direct: string, shared: string, total: string, currency = 'EUR') => ({
  centre,
  currency,
  direct,
  shared,
  total,
})

it('each centre has all that lies below it, of one currency; what is on no known centre is in none', () => {
  const rolled = rollUp(
    centres,
    [
      amount('a11', '1', '0.5', '1.5'),
      amount('a', '10', '-2', '8'),
      amount('b', '100', '0', '100'),
      amount('a11', '7', '7', '14', 'USD'),
      amount('gone', '5', '5', '10'),
    ],
    'EUR',
  )
  expect([...rolled]).toEqual([
    ['root', { direct: '111', shared: '-1.5', total: '109.5' }],
    ['a', { direct: '11', shared: '-1.5', total: '9.5' }],
    ['a1', { direct: '1', shared: '0.5', total: '1.5' }],
    ['a11', { direct: '1', shared: '0.5', total: '1.5' }],
    ['b', { direct: '100', shared: '0', total: '100' }],
  ])
})

it('the branch of a centre is what lies directly below the root', () => {
  expect(['root', 'a', 'a1', 'a11', 'b', 'gone'].map(id => branchOf(centres, id))).toEqual(['root', 'a', 'a', 'a', 'b', 'gone'])
})
