import { describe, expect, it } from 'vitest'
import { dailyOf, highest, measuredHours, p95, total, weekOf } from '../../../core/measured/hourly'
import { HOURLY_DAYS, MeasuredTableBuilder, measuredIn, nothingMeasured } from '../../../core/measured/measured-table'

const day = (of: (hour: number) => number) => Float32Array.from({ length: 24 }, (_, hour) => of(hour))

describe('hours of days', () => {
  // Monday 2 November 2026 and the day after
  const two = { from: '2026-11-02', values: Float32Array.from([...day(hour => hour), ...day(hour => (hour < 12 ? NaN : 1))]) }

  it('counts and reads them', () => {
    expect(measuredHours(two)).toBe(36)
    expect(highest(two.values)).toBe(23)
    expect(total(two.values)).toBe(276 + 12)
    expect([highest(Float32Array.of(NaN)), total(Float32Array.of(NaN))]).toEqual([NaN, NaN])
    expect(highest(Float32Array.of(NaN, -3, -5, NaN))).toBe(-3)
    expect(dailyOf(two, total)).toEqual([
      { day: '2026-11-02', value: 276 },
      { day: '2026-11-03', value: 12 },
    ])
    // the 35th of 36 in order: 0, 1 (13 times), 2 … 23
    expect(p95(two)).toBe(22)
  })

  it('puts the same hours of weeks together, Monday first', () => {
    const weeks = weekOf(two)
    expect(weeks[23]).toEqual({ most: 23, weeks: 1 })
    expect(weeks[24]).toEqual({ most: NaN, weeks: 0 })
    expect(weeks[36]).toEqual({ most: 1, weeks: 1 })
    // from a Sunday on: the first day is the last of the week, the eighth falls on it again
    const nine = { from: '2026-11-01', values: Float32Array.from({ length: 9 * 24 }, (_, i) => Math.floor(i / 24)) }
    expect(weekOf(nine)[6 * 24]).toEqual({ most: 7, weeks: 2 })
    expect(weekOf(nine)[0]).toEqual({ most: 8, weeks: 2 })
    expect(weekOf(nine)[24]).toEqual({ most: 2, weeks: 1 })
  })
})

describe('what was measured of many', () => {
  it('finds the hours of a resource and metric, up to the newest day', () => {
    const builder = new MeasuredTableBuilder('2026-11-30')
    builder.add({ metric: 'cpu', day: '2026-11-30', hours: new Map([['a', day(() => 1)]]) })
    builder.add({ metric: 'memory', day: '2026-11-01', hours: new Map([['constructor', day(hour => hour)]]) })
    // too early, and later than the newest
    builder.add({ metric: 'cpu', day: '2026-10-31', hours: new Map([['b', day(() => 1)]]) })
    builder.add({ metric: 'cpu', day: '2026-12-01', hours: new Map([['b', day(() => 1)]]) })
    const of = measuredIn(builder.table())
    expect(of('a', 'cpu')!.from).toBe('2026-11-01')
    expect(of('a', 'cpu')!.values).toHaveLength(HOURLY_DAYS * 24)
    expect([...of('a', 'cpu')!.values.subarray(-25, -22)]).toEqual([NaN, 1, 1])
    expect([...of('constructor', 'memory')!.values.subarray(22, 25)]).toEqual([22, 23, NaN])
    expect([of('a', 'memory'), of('b', 'cpu'), of('toString', 'cpu')]).toEqual([null, null, null])
    expect(measuredIn(nothingMeasured)('a', 'cpu')).toBeNull()
  })

  it('lets the later told hold, hour by hour', () => {
    const builder = new MeasuredTableBuilder('2026-11-30')
    builder.add({ metric: 'cpu', day: '2026-11-30', hours: new Map([['a', day(hour => (hour < 2 ? 5 : NaN))]]) })
    builder.add({ metric: 'cpu', day: '2026-11-30', hours: new Map([['a', day(hour => (hour === 1 ? 9 : NaN))]]) })
    expect([...measuredIn(builder.table())('a', 'cpu')!.values.subarray(-24, -21)]).toEqual([5, 9, NaN])
  })

  it('makes room for as many as come', () => {
    const builder = new MeasuredTableBuilder('2026-11-30')
    const ids = Array.from({ length: 600 }, (_, i) => `r${i}`)
    builder.add({ metric: 'cpu', day: '2026-11-30', hours: new Map(ids.map((id, i) => [id, day(() => i)])) })
    const of = measuredIn(builder.table())
    for (const i of [0, 255, 256, 599]) expect([...of(`r${i}`, 'cpu')!.values.subarray(-25)]).toEqual([NaN, ...Array<number>(24).fill(i)])
  })
})
