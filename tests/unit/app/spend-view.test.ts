import { expect, it } from 'vitest'
import { periodText, readView, withoutValue, withValue, writeView, type SpendView } from '../../../app/utils/spend-view'
import type { LocationQuery } from 'vue-router'

const view: SpendView = {
  measure: 'billedCost', splitBy: ['Tags/team', 'ServiceName'], grain: 'month', period: { start: '2026-01-01', end: '2026-07-01' },
  keep: { 'ServiceName': ['Log search', null], 'Tags/team': ['a=b'] }, leaveOut: { ChargeCategory: ['Credit'] }, currency: 'USD', chart: 'lines', steps: [{ dimension: 'SubAccountName', value: 'live' }, { dimension: 'ServiceName', value: null }],
}

it('the address holds all of the Sentence', () => {
  expect(readView(writeView(view, '2026-11-23') as LocationQuery, '2026-11-23')).toEqual(view)
  expect(readView(writeView({ ...view, splitBy: [] }, '2026-11-23') as LocationQuery, '2026-11-23').splitBy).toEqual([])
})

it('what is as usual is not in the address, and what is wrong in it is as usual', () => {
  const usual = readView({}, '2026-11-23')
  expect(usual).toMatchObject({ measure: 'effectiveCost', splitBy: ['ServiceName'], grain: 'day', period: { start: '2026-11-01', end: '2026-11-24' } })
  expect(writeView(usual, '2026-11-23')).toEqual({})
  expect(readView({ from: '2026-02-30', to: 'x', by: 'BilledCost', keep: 'nonsense=1', each: 'hour', cost: 'free' }, '2026-11-23')).toEqual(usual)
})

it('adds and takes away conditions', () => {
  expect(withValue({ a: ['x'] }, 'a', 'x')).toEqual({ a: ['x'] })
  expect(withValue({ a: ['x'] }, 'a', null)).toEqual({ a: ['x', null] })
  expect(withoutValue({ a: ['x'], b: ['y'] }, 'a', 'x')).toEqual({ b: ['y'] })
})

it('says periods in words', () => {
  expect(periodText({ start: '2026-11-01', end: '2026-11-24' })).toBe('1 to 23 Nov 2026')
  expect(periodText({ start: '2026-10-01', end: '2026-11-01' })).toBe('October 2026')
  expect(periodText({ start: '2026-08-01', end: '2026-11-01' })).toBe('August 2026 to October 2026')
  expect(periodText({ start: '2026-11-17', end: '2026-11-18' })).toBe('17 Nov 2026')
})
