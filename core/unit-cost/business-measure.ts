import { addDays, isDay, monthEnd, monthStart } from '../time/day'

/** How often a business measure is told. */
export const measureGrains = ['day', 'month'] as const
export type MeasureGrain = (typeof measureGrains)[number]

/** What was counted for a cost centre (or a product, in a tree of products) on a day (`2026-10-05`) or in a month (`2026-10`). */
export type MeasureValue = { centre: string; date: string; value: string }

/** A business quantity, such as bookings: what it is counted in, how often, and of which tree's cost centres (null for the first). */
export type BusinessMeasure = { name: string; unit: string; grain: MeasureGrain; tree: string | null; values: MeasureValue[] }

const MONTH = /^\d{4}-(0[1-9]|1[0-2])$/

/** Whether a text is a day, or a month, as a measure of that grain writes them. */
export const isDateOf = (grain: MeasureGrain, date: string): boolean => (grain === 'day' ? isDay(date) : MONTH.test(date))

/** The grain of a date; null for what is neither a day nor a month. */
export const grainOf = (date: string): MeasureGrain | null => measureGrains.find(grain => isDateOf(grain, date)) ?? null

/** The dates of a month that make it whole where a measure tells them: its days, or itself. @param end exclusive, within the month. */
export function datesOf(grain: MeasureGrain, month: string, end: string = monthEnd(month)): string[] {
  if (grain === 'month') return [month]
  const dates: string[] = []
  for (let day = monthStart(month); day < end; day = addDays(day, 1)) dates.push(day)
  return dates
}
