import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { dayStats } from '../../../core/measured/day-stats'
import { quantile } from '../../../core/measured/quantile'

describe('quantile', () => {
  it('is the value at the nearest rank', () => {
    const values = Float32Array.of(50, 15, 40, 20, 35)
    expect([5, 20, 21, 30, 40, 41, 50, 100].map(percent => quantile(values, percent))).toEqual([15, 15, 20, 20, 20, 35, 35, 50])
    // 19 of 20 do not exceed the 19th
    const twenty = Float32Array.from({ length: 20 }, (_, i) => i + 1)
    expect([quantile(twenty, 95), quantile(twenty, 96)]).toEqual([19, 20])
  })

  it('does not count what was not measured, and says so where nothing was', () => {
    expect(quantile(Float32Array.of(NaN, 3, NaN, 1, 2), 67)).toBe(3)
    expect(quantile(Float32Array.of(NaN, 3, NaN, 1, 2), 66)).toBe(2)
    expect(quantile(Float32Array.of(NaN, NaN), 95)).toBeNull()
    expect(quantile(new Float32Array(0), 95)).toBeNull()
  })

  it('leaves the values as they were', () => {
    const values = Float32Array.of(3, 1, 2)
    quantile(values, 95)
    expect([...values]).toEqual([3, 1, 2])
  })

  it('always holds for so many of a hundred, and for no smaller value', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 50 }), { minLength: 1, maxLength: 60 }),
        fc.integer({ min: 1, max: 100 }),
        (list, percent) => {
          const found = quantile(Float32Array.from(list), percent)!
          const share = (value: number) => (list.filter(one => one <= value).length * 100) / list.length
          expect(list).toContain(found)
          expect(share(found)).toBeGreaterThanOrEqual(percent)
          for (const smaller of list.filter(one => one < found)) expect(share(smaller)).toBeLessThan(percent)
        },
      ),
    )
  })
})

describe('figures of a day', () => {
  it('tells least, mean, 95th, most and hours', () => {
    const hours = Float32Array.from({ length: 24 }, (_, hour) => (hour < 4 ? NaN : hour))
    // 20 hours from 4 to 23: mean 13.5, the 19th of them 22
    expect(dayStats(hours)).toEqual({ least: 4, mean: 13.5, p95: 22, most: 23, hours: 20 })
    expect(dayStats(Float32Array.of(0))).toEqual({ least: 0, mean: 0, p95: 0, most: 0, hours: 1 })
    expect(dayStats(new Float32Array(24).fill(NaN))).toBeNull()
  })
})
