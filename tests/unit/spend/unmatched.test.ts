import { expect, it } from 'vitest'
import { emptyReference } from '../../../core/spend/reference'
import { unmatchedOf } from '../../../core/spend/unmatched'
import { valuesFitting, type LookupEntry } from '../../../core/spend/lookup'
import { cubeOf } from '../../support/random-charges'

const at = (key: string, more: Partial<LookupEntry> = {}): LookupEntry => ({ key, from: null, until: null, values: { f: 'x' }, ...more })
const charge = (day: string, service: string | null, amount: string, currency = 'EUR') => ({
  ...{ day, hour: 0, currency, amount, tags: {} },
  values: service === null ? ({} as Record<string, string>) : { ServiceName: service },
})

it('tells what charges have and the lookup does not say, on their days, and what it says of nothing', () => {
  const cube = cubeOf([
    charge('2026-09-05', 'known', '1'),
    charge('2026-09-06', 'ends', '2'),
    charge('2026-09-20', 'ends', '-4'),
    charge('2026-09-20', 'constructor', '3.5'),
    charge('2026-09-21', 'constructor', '100', 'USD'),
    charge('2026-09-05', 'gw-north', '8'),
    charge('2026-09-05', 'other spelling', '16'),
    charge('2026-09-05', null, '0.25'),
    charge('2026-10-05', 'elsewhen', '32'),
  ])
  const entries = [
    at('known'),
    at('ends', { until: '2026-09-10' }),
    at('GW-*', { match: 'pattern' }),
    at('one spelling'),
    at('nobody'),
    at('nobody', { from: '2026-09-01' }),
    at('z*', { match: 'pattern' }),
  ]
  const aliases = { ServiceName: { 'other spelling': 'one spelling' } }
  cube.setReference({ ...emptyReference, aliases, lookups: { own: { by: 'ServiceName', fields: ['f'], entries } } })
  const found = unmatchedOf(cube, { name: 'own', start: '2026-09-01', end: '2026-10-01', measure: 'billedCost' })
  expect(found).toEqual({
    unknown: [
      { value: 'constructor', currency: 'USD', amount: '100', count: 1 },
      { value: 'ends', currency: 'EUR', amount: '-4', count: 1 },
      { value: 'constructor', currency: 'EUR', amount: '3.5', count: 1 },
    ],
    without: [{ currency: 'EUR', amount: '0.25', count: 1 }],
    unused: [
      { key: 'nobody', match: null },
      { key: 'z*', match: 'pattern' },
    ],
  })
  expect(() => unmatchedOf(cube, { name: 'constructor', start: '2026-09-01', end: '2026-10-01', measure: 'billedCost' })).toThrow(
    RangeError,
  )
})

it('is right where only some fields are said', () => {
  const cube = cubeOf([charge('2026-09-05', 'a', '1'), charge('2026-09-05', 'b', '2')])
  const entries = [at('a', { values: { g: 'only' } })]
  cube.setReference({ ...emptyReference, lookups: { own: { by: 'ServiceName', fields: ['f', 'g'], entries } } })
  const { unknown } = unmatchedOf(cube, { name: 'own', start: '2026-09-01', end: '2026-10-01', measure: 'billedCost' })
  expect(unknown.map(({ value }) => value)).toEqual(['b'])
})

it('finds the values that fit a pattern, whatever their letters, by how they begin', () => {
  const values = [null, 'Alder', 'alder-2', 'ALDERHOLM', 'birch', 'b', 'xalder']
  const fitting = valuesFitting(values)
  const named = (pattern: string) =>
    fitting(pattern)
      .map(place => values[place])
      .sort()
  expect(named('alder*')).toEqual(['ALDERHOLM', 'Alder', 'alder-2'])
  expect(named('*alder')).toEqual(['Alder', 'xalder'])
  expect(named('B')).toEqual(['b'])
  expect(named('*')).toHaveLength(6)
  expect(named('c*')).toEqual([])
})
