import { expect, it } from 'vitest'
import { Decimal } from '../../../core/money/decimal'
import { minutesToHalf, savingsCurve } from '../../../core/opportunity/curve'
import { groupSavings, savedOf, type Listed } from '../../../core/opportunity/grouped'
import { wholeSaving, type Planned } from '../../../core/opportunity/whole-saving'
import { settingsFrom, thresholdProblem } from '../../../core/opportunity/thresholds'
import { billDetectors } from '../../../core/opportunity/detectors'
import type { BilledResource } from '../../../core/opportunity/bill/billed-resource'

const planned = (id: string, now: string, more: Partial<Planned> = {}, sku = id): Planned => ({
  ...{ id, currency: 'EUR', day: '2026-11-01' },
  effects: [{ resourceId: 'r', sku, how: 'gone', now, then: '0' }],
  ...more,
})
const rateOf = (from: string, to: string, day: string) =>
  from === 'USD' && to === 'EUR' ? new Decimal(day < '2026-11-01' ? '0.8' : '0.9') : null

it('adds what can be saved in one currency, at the rate of the day each was looked at; without a rate it is in no total', () => {
  const open = [
    planned('a', '10'),
    planned('b', '10', { currency: 'USD' }),
    planned('c', '10', { currency: 'USD', day: '2026-10-01' }),
    planned('d', '99', { currency: 'GBP' }),
  ]
  expect(wholeSaving(open, 'EUR', rateOf)).toEqual({
    ...{ currency: 'EUR', total: '27', unrated: ['d'], isBest: true, notCounted: [] },
    counted: { a: '10', b: '9', c: '8' },
  })
})

it('takes the currency of most where the company has said none, and the first of equals', () => {
  expect(wholeSaving([planned('a', '1', { currency: 'USD' }), planned('b', '1')], null, rateOf)).toMatchObject({
    currency: 'EUR',
    total: '1.9',
  })
  expect(wholeSaving([planned('a', '1', { currency: 'USD' })], null, rateOf)).toMatchObject({ currency: 'USD', total: '1' })
  expect(wholeSaving([], null, rateOf)).toMatchObject({ currency: null, total: '0' })
})

it('compares what excludes each other in one currency', () => {
  // 10 USD are 9 EUR: the 9.50 EUR are counted
  const open = [planned('dollars', '10', { currency: 'USD' }, 'x'), planned('euros', '9.5', {}, 'x')]
  expect(wholeSaving(open, 'EUR', rateOf)).toMatchObject({
    ...{ counted: { euros: '9.5' }, total: '9.5' },
    notCounted: [{ id: 'dollars', amount: '9', instead: ['euros'] }],
  })
})

it('draws the curve by saving per hour of work, what takes no work first, what saves nothing not at all', () => {
  const steps = savingsCurve([
    { id: 'slow', saved: '100', minutes: 600 },
    { id: 'quick', saved: '50', minutes: 60 },
    { id: 'free', saved: '1', minutes: 0 },
    { id: 'nothing', saved: '0', minutes: 5 },
  ])
  expect(steps).toEqual([
    { id: 'free', fromMinutes: 0, toMinutes: 0, from: '0', to: '1' },
    { id: 'quick', fromMinutes: 0, toMinutes: 60, from: '1', to: '51' },
    { id: 'slow', fromMinutes: 60, toMinutes: 660, from: '51', to: '151' },
  ])
  // half of 151 is reached with the slow one
  expect(minutesToHalf(steps)).toBe(660)
  expect(minutesToHalf(steps.slice(0, 2))).toBe(60)
  expect(minutesToHalf([])).toBeNull()
})

const listed = (id: string, saved: string | null, minutesOfWork: number, more: Partial<Listed> = {}): Listed => ({
  ...{ id, saved, minutesOfWork, detectorLabel: 'd', owner: null, centre: 'c', subAccountName: 's', service: 'v', risk: 'none' },
  ...{ confidence: 'measured', state: 'spotted' },
  ...more,
})

it('groups and orders a list; what another counts adds neither money nor work', () => {
  const list = [
    listed('a', '10', 60, { owner: 'constructor' }),
    listed('b', '30', 600, { owner: 'Ines' }),
    listed('c', null, 5, { owner: 'Ines' }),
    listed('d', '0.5', 1),
  ]
  const told = (by: Parameters<typeof groupSavings>[1], order: Parameters<typeof groupSavings>[2]) =>
    groupSavings(list, by, order).map(({ label, rows, saved, minutes }) => [label, rows.map(({ id }) => id).join(''), saved, minutes])
  expect(told('owner', 'per hour')).toEqual([
    [null, 'd', '0.5', 1],
    ['constructor', 'a', '10', 60],
    ['Ines', 'bc', '30', 600],
  ])
  expect(told('owner', 'saving').map(([label]) => label)).toEqual(['Ines', 'constructor', null])
  expect(told('owner', 'work').map(([label]) => label)).toEqual([null, 'constructor', 'Ines'])
  expect(told('each', 'saving').map(([label]) => label)).toEqual(['b', 'a', 'd', 'c'])
  expect(savedOf(list)).toBe('40.5')
})

it('goes by the threshold of the sub account, else the company, else the usual', () => {
  const [fee] = billDetectors
  const at = (subAccountName: string) => ({ subAccountName }) as BilledResource
  const settings = settingsFrom([
    { detector: 'fee-without-use', key: 'days', subAccount: '', value: 30 },
    { detector: 'fee-without-use', key: 'days', subAccount: 'build', value: 3 },
  ])
  expect(settings(fee!, at('build'))).toEqual({ days: 3, noise: 1 })
  expect(settings(fee!, at('constructor'))).toEqual({ days: 30, noise: 1 })
  expect(settingsFrom([])(fee!, at(''))).toEqual({ days: 14, noise: 1 })
})

it('refuses a threshold that is none, out of bounds, or not one of those that can be told apart', () => {
  const problem = (detector: string, key: string, value: number) =>
    thresholdProblem({ detector, key, subAccount: '', value }, billDetectors)
  expect(problem('fee-without-use', 'noise', 50)).toBeNull()
  expect(problem('fee-without-use', 'noise', 50.1)).toBe(
    '«use that costs at most this much of the fee is none» is from 0 to 50 %, not 50.1',
  )
  expect(problem('fee-without-use', 'days', 8)).toBe('«charged without use for at least» can be 30, 14, 7, 3 days, not 8')
  expect(problem('fee-without-use', 'constructor', 1)).toContain('has no threshold «constructor», but «days», «noise»')
  expect(problem('constructor', 'days', 1)).toBe('no detector is called «constructor»')
  expect(problem('fee-without-use', 'noise', NaN)).toContain('not NaN')
})
