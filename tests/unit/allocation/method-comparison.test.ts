import { expect, it } from 'vitest'
import { comparedMethods } from '../../../core/allocation/method-comparison'

it('stands methods side by side, one that cannot be used as nothing, in one currency', () => {
  const centres = ['b', 'a', 'c', 'd'].map(id => ({ id, name: id, parent: null, owner: null }))
  const settled = (list: Record<string, string>, currency = 'EUR') => ({
    statements: Object.entries(list).map(([centre, shared]) => ({ centre, currency, shared })),
  })
  const direct = { statements: [...settled({ a: '10', b: '-2.5', d: '0' }).statements, ...settled({ c: '7' }, 'USD').statements] }
  expect(comparedMethods({ centres }, { direct, 'step-down': null, reciprocal: settled({ a: '9' }) }, 'EUR')).toEqual([
    { centre: 'b', byMethod: { direct: '-2.5', 'step-down': null, reciprocal: '0' } },
    { centre: 'a', byMethod: { direct: '10', 'step-down': null, reciprocal: '9' } },
  ])
})
