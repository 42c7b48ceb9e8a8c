import { crc32 } from 'node:zlib'
import { dayStats, type DayStats } from '../../core/measured/day-stats'
import { monthOf, type Day, type Month } from '../../core/time/day'
import { asMeasured, unpackValues, type MeasuredBlock, type MeasuredDay } from './measured-block'

/**
 * Of each resource five figures for each day of a month: least, mean, 95th of 100, most, and how many hours were measured; NaN for none.
 */
export type FiguresMonth = Map<string, Float32Array>

const FIGURES = 5
const DAYS = 31
export const FIGURES_WIDTH = FIGURES * DAYS
/** What is asked of one resource lies in one of so many parts of a month. */
const PARTS = 32

/** The part of a month that a resource's figures lie in. */
export const partOf = (resource: string): number => crc32(resource) % PARTS

/** Days by their months. */
export function byMonth(days: ReadonlyMap<Day, MeasuredDay>): Map<Month, Map<Day, MeasuredDay>> {
  const months = new Map<Month, Map<Day, MeasuredDay>>()
  for (const [day, measured] of days) {
    const own = months.get(monthOf(day)) ?? new Map<Day, MeasuredDay>()
    months.set(monthOf(day), own.set(day, measured))
  }
  return months
}

/** Puts a day's figures into a month, part by part; what was known of the day and is told no more, goes. */
export function enterDay(parts: Map<number, FiguresMonth>, day: Day, measured: MeasuredDay): void {
  const at = (Number(day.slice(8)) - 1) * FIGURES
  for (const month of parts.values()) for (const figures of month.values()) figures.fill(NaN, at, at + FIGURES)
  for (const [id, hours] of measured) {
    const own = dayStats(hours)
    if (!own) continue
    const month = parts.get(partOf(id)) ?? new Map<string, Float32Array>()
    parts.set(partOf(id), month)
    const figures = month.get(id) ?? new Float32Array(FIGURES_WIDTH).fill(NaN)
    month.set(id, figures)
    figures.set([own.least, own.mean, own.p95, own.most, own.hours], at)
  }
}

/** The figures of a resource in a part of a month, day by day. */
export function figuresIn(month: Month, block: MeasuredBlock, resource: string): { day: Day; figures: DayStats }[] {
  const figures = unpackValues(block, FIGURES_WIDTH)?.get(resource)
  if (!figures) return []
  return Array.from({ length: DAYS }, (_, i) => {
    const [least, mean, p95, most, hours] = Array.from(figures.subarray(i * FIGURES, (i + 1) * FIGURES), asMeasured) as [
      number,
      number,
      number,
      number,
      number,
    ]
    return { day: `${month}-${String(i + 1).padStart(2, '0')}`, figures: { least, mean, p95, most, hours } }
  }).filter(({ figures: own }) => !Number.isNaN(own.hours))
}
