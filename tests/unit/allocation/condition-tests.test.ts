import { expect, it } from 'vitest'
import { allOf, amountTest, valueTest, type Looks } from '../../../core/allocation/condition-tests'
import { patternTest } from '../../../core/text/pattern'
import { cubeOf, type PlainCharge } from '../../support/random-charges'

const holds = (one: Looks, value: string | null) => valueTest(one).holds(value, value?.toLowerCase() ?? null)

it('a pattern has to fit as a whole: its parts in their order, none over another', () => {
  const fitting = (pattern: string) =>
    ['ab', 'abab', 'aba', 'AxB', 'aXXbYYb', 'a', 'b', '', 'xab'].filter(text => patternTest(pattern)(text.toLowerCase()))
  expect(fitting('a*b')).toEqual(['ab', 'abab', 'AxB', 'aXXbYYb'])
  expect(fitting('ab')).toEqual(['ab'])
  expect(fitting('*ab')).toEqual(['ab', 'abab', 'xab'])
  expect(fitting('a*')).toEqual(['ab', 'abab', 'aba', 'AxB', 'aXXbYYb', 'a'])
  expect(fitting('*')).toHaveLength(9)
  // two parts need two places
  expect(fitting('*b*b')).toEqual(['abab', 'aXXbYYb'])
  expect(fitting('ab*ba')).toEqual([])
  expect(fitting('*x*y*')).toEqual(['aXXbYYb'])
  expect(fitting('*y*x*')).toEqual([])
  expect([patternTest('*')(null), patternTest('')(null), patternTest('')('')]).toEqual([false, false, true])
})

it('values are met as they are written, patterns whatever their letters', () => {
  const byValues: Looks = { dimension: 'SubAccountName', values: ['Live', null] }
  expect(['Live', 'live', null, ''].map(value => holds(byValues, value))).toEqual([true, false, true, false])
  const byPattern: Looks = { dimension: 'SubAccountName', pattern: 'Crew-*' }
  expect(['crew-db', 'CREW-', 'crew', null].map(value => holds(byPattern, value))).toEqual([true, true, false, false])
  expect([valueTest(byValues).head, valueTest(byPattern).head]).toEqual(['', 'crew-'])
})

it('several tests hold together; what they begin with is the longest of their beginnings', () => {
  const tests = ['cr*', 'crew-*', '*db'].map(pattern => valueTest({ dimension: 'SubAccountName', pattern }))
  const all = allOf(tests)
  expect(['crew-db', 'crew-web', 'crab-db'].map(value => all.holds(value, value))).toEqual([true, false, false])
  expect([all.head, allOf(tests.slice(0, 1)).head, allOf([]).head]).toEqual(['crew-', 'cr', ''])
  expect(allOf([tests[0]!])).toBe(tests[0])
})

it('amounts are met at and beside their bounds, to the last digit, whatever their size', () => {
  const bounds = ['-1000000', '-0.000001', '0', '0.000000000000001', '1', '1.000001', '999999999.999999999999999', '1000000000']
  const amounts = [...bounds, '0.999999999999999', '-0.000000999999999', '1.000000999999999', '99999999999999', '-99999999999999']
  const charge = (amount: string): PlainCharge => ({ day: '2026-09-01', hour: 0, currency: 'EUR', amount, values: {}, tags: {} })
  const [segment] = [...cubeOf(amounts.map(charge)).segments()]
  const plain = (amount: string) => {
    const [whole, fraction = ''] = amount.replace('-', '').split('.') as [string, string?]
    const units = BigInt(whole + fraction.padEnd(15, '0'))
    return amount.startsWith('-') ? -units : units
  }
  for (const bound of bounds) {
    const atLeast = amountTest([{ measure: 'billedCost', atLeast: bound }])!
    const below = amountTest([{ measure: 'billedCost', below: bound }])!
    const both = amountTest([
      { measure: 'billedCost', atLeast: '0' },
      { measure: 'billedCost', below: bound },
    ])!
    const between = amountTest([{ measure: 'billedCost', atLeast: '-1', below: bound }])!
    for (let row = 0; row < amounts.length; row++) {
      const own = plain(amounts[row]!)
      const said = [atLeast, below, both, between].map(test => test(segment!, row))
      const isBelow = own < plain(bound)
      expect(said, `${amounts[row]} and ${bound}`).toEqual([!isBelow, isBelow, own >= 0n && isBelow, own >= plain('-1') && isBelow])
    }
  }
  expect(amountTest([{ dimension: 'SubAccountName', values: ['x'] }])).toBeNull()
})
