import { expect, it } from 'vitest'
import { runTimes } from '../../../core/spend/run-times'

const days = (last: number, without: number[] = []) =>
  new Set(
    Array.from({ length: last }, (_, i) => i + 1)
      .filter(n => !without.includes(n))
      .map(n => `2026-10-0${n}`),
  )
const hours = (list: [string, number][]) => new Map(list)

it('takes days without hours between days with some as standing still, and joins neighbours', () => {
  expect(
    runTimes(
      hours([
        ['2026-10-01', 24],
        ['2026-10-02', 0],
        ['2026-10-04', 12],
        ['2026-10-06', 24],
      ]),
      days(6),
    ),
  ).toEqual({
    still: [
      { from: '2026-10-02', to: '2026-10-03' },
      { from: '2026-10-05', to: '2026-10-05' },
    ],
    hoursADay: 10,
    days: 6,
  })
})

it('says nothing of days that nothing is known of, nor of what never ran', () => {
  expect(
    runTimes(
      hours([
        ['2026-10-01', 24],
        ['2026-10-04', 24],
      ]),
      days(4, [2, 3]),
    ),
  ).toEqual({ still: [], hoursADay: 24, days: 2 })
  expect(runTimes(hours([['2026-10-01', 0]]), days(1))).toBeNull()
})
