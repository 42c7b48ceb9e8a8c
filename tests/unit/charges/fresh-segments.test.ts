import { expect, it } from 'vitest'
import { FreshSegments } from '../../../server/charges/fresh-segments'

const OCTOBER = '2026-10-01T00:00:00Z'
const NOVEMBER = '2026-11-01T00:00:00Z'
const segment = (start: string, number: number, rows: number, ...bytes: number[]) => ({
  ...{ periodStart: Date.parse(start) / 1000, number, rows, bytes: Uint8Array.from(bytes) },
})
const texts = (taken: Uint8Array[] | null) => taken?.map(bytes => [...bytes].join())

it('gives the segments of a period in order, once', () => {
  const fresh = new FreshSegments()
  fresh.add(1, [segment(OCTOBER, 1, 5, 3, 4), segment(NOVEMBER, 0, 2, 9)])
  fresh.add(1, [segment(OCTOBER, 0, 10, 1, 2)])
  expect(texts(fresh.take(1, OCTOBER, 15))).toEqual(['1,2', '3,4'])
  expect([fresh.take(1, OCTOBER, 15), fresh.take(2, NOVEMBER, 2)]).toEqual([null, null])
  expect(texts(fresh.take(1, NOVEMBER, 2))).toEqual(['9'])
})

it('gives none where one is missing, or the rows are others', () => {
  const fresh = new FreshSegments()
  fresh.add(1, [segment(OCTOBER, 0, 10, 1), segment(NOVEMBER, 1, 2, 9)])
  expect([fresh.take(1, OCTOBER, 11), fresh.take(1, NOVEMBER, 2)]).toEqual([null, null])
})

it('has bytes of its own, holds so many at most, and forgets the oldest load and what will not count', () => {
  const fresh = new FreshSegments(4)
  const given = segment(OCTOBER, 0, 1, 1, 2)
  fresh.add(1, [given])
  given.bytes[0] = 7
  fresh.add(2, [segment(OCTOBER, 0, 1, 3, 4)])
  fresh.add(3, [segment(OCTOBER, 0, 1, 5)])
  expect(fresh.take(1, OCTOBER, 1)).toBeNull()
  expect(texts(fresh.take(2, OCTOBER, 1))).toEqual(['3,4'])
  fresh.forget(3)
  expect(fresh.take(3, OCTOBER, 1)).toBeNull()
  // what was forgotten or taken counts no longer
  fresh.add(4, [segment(OCTOBER, 0, 1, 1, 2)])
  fresh.add(5, [segment(OCTOBER, 0, 1, 3, 4)])
  expect([texts(fresh.take(4, OCTOBER, 1)), texts(fresh.take(5, OCTOBER, 1))]).toEqual([['1,2'], ['3,4']])
  // one that is too large by itself is not held
  fresh.add(6, [segment(OCTOBER, 0, 1, 1, 2, 3, 4, 5)])
  fresh.add(6, [segment(OCTOBER, 1, 1, 1)])
  expect(fresh.take(6, OCTOBER, 2)).toBeNull()
})
