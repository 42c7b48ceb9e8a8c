import { expect, it } from 'vitest'
import { monthsToFetch } from '../../../server/imports/fetch-bill'

it('asks for this billing period; for the one before while it may still change; and for those since the last day', () => {
  expect(monthsToFetch('2026-11-24T09:00:00Z', null)).toEqual(['2026-11'])
  expect(monthsToFetch('2026-11-24T09:00:00Z', '2026-11-22')).toEqual(['2026-11'])
  // the first of a month: the day before belongs to the month before
  expect(monthsToFetch('2026-12-01T00:00:00Z', '2026-11-29')).toEqual(['2026-11'])
  expect(monthsToFetch('2026-12-02T00:00:00Z', '2026-11-30')).toEqual(['2026-11', '2026-12'])
  expect(monthsToFetch('2026-12-06T00:00:00Z', '2026-12-04')).toEqual(['2026-11', '2026-12'])
  expect(monthsToFetch('2026-12-07T00:00:00Z', '2026-12-05')).toEqual(['2026-12'])
  // it was away over the turn of the year
  expect(monthsToFetch('2027-02-10T00:00:00Z', '2026-11-23')).toEqual(['2026-11', '2026-12', '2027-01', '2027-02'])
  // its days are before ours: the last one loaded lies ahead
  expect(monthsToFetch('2026-11-24T00:00:00Z', '2026-12-31')).toEqual(['2026-11'])
  expect(monthsToFetch('2026-11-24T00:00:00Z', '2020-01-01')).toHaveLength(13)
})
