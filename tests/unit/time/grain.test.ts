import fc from 'fast-check'
import { expect, it } from 'vitest'
import { addDays } from '../../../core/time/day'
import { grainOfAtMost, grains, grainStart, grainStarts, isWithin, wholeStarts, type Grain } from '../../../core/time/grain'

const day = fc.integer({ min: 0, max: 1500 }).map(days => addDays('2024-01-01', days))
const startOf = (at: string, grain: Grain) => (grain === 'hour' ? `${at}T00` : grainStart(at, grain))

it('a grain lies within another where no step of it is cut by a step of the other', () => {
  const days = Array.from({ length: 800 }, (_, i) => addDays('2024-01-01', i))
  for (const fine of grains) {
    for (const coarse of grains) {
      const within = new Map<string, Set<string>>()
      for (const at of days) within.set(startOf(at, fine), (within.get(startOf(at, fine)) ?? new Set()).add(startOf(at, coarse)))
      // hours of a day all lie in it, but a day does not lie within an hour
      const isCut = [...within.values()].some(steps => steps.size > 1) || (coarse === 'hour' && fine !== 'hour')
      expect(isWithin(fine, coarse), `${fine} within ${coarse}`).toBe(!isCut)
    }
  }
})

it('the finest grain of at most so many steps, weeks staying weeks', () => {
  expect(grainOfAtMost(62, '2026-10-01', '2026-11-01', 'day')).toBe('day')
  expect(grainOfAtMost(62, '2026-10-01', '2026-11-01', 'hour')).toBe('day')
  expect(grainOfAtMost(62, '2025-11-01', '2026-11-25', 'day')).toBe('week')
  expect(grainOfAtMost(62, '2022-01-01', '2026-01-01', 'day')).toBe('month')
  expect(grainOfAtMost(62, '2022-01-01', '2026-01-01', 'week')).toBe('week')
  fc.assert(
    fc.property(
      day,
      fc.integer({ min: 1, max: 600 }),
      fc.constantFrom(...grains),
      fc.integer({ min: 10, max: 80 }),
      (start, days, grain, most) => {
        const end = addDays(start, days)
        const found = grainOfAtMost(most, start, end, grain)
        expect(isWithin(grain, found)).toBe(true)
        const fitting = grains.filter(g => isWithin(grain, g) && grainStarts(start, end, g).length <= most)
        expect(found).toBe(fitting[0] ?? grain)
      },
    ),
  )
})

it('whole steps are those whose days are all in the period', () => {
  expect(wholeStarts('2026-10-01', '2026-11-01', 'week')).toEqual(['2026-10-05', '2026-10-12', '2026-10-19'])
  expect(wholeStarts('2026-10-01', '2026-11-01', 'month')).toEqual(['2026-10-01'])
  expect(wholeStarts('2026-10-02', '2026-10-31', 'month')).toEqual([])
  fc.assert(
    fc.property(
      day,
      fc.integer({ min: 1, max: 500 }),
      fc.constantFrom('day' as const, 'week' as const, 'month' as const, 'quarter' as const),
      (start, days, grain) => {
        const end = addDays(start, days)
        const daysOf = new Map<string, string[]>()
        for (let i = -100; i < days + 100; i++) {
          const at = addDays(start, i)
          daysOf.set(grainStart(at, grain), [...(daysOf.get(grainStart(at, grain)) ?? []), at])
        }
        expect(wholeStarts(start, end, grain)).toEqual(
          [...daysOf].filter(([own, list]) => list.every(at => at >= start && at < end) && own >= start).map(([own]) => own),
        )
      },
    ),
  )
})
