import { addMonths, monthOf, type Day, type Month } from '../core/time/day'

/** The demo's own date: every run, test and picture shows the same days. Charges reach to the day before. */
export const TODAY: Day = '2026-11-24'
export const LAST_MONTH: Month = monthOf(TODAY)
export const MONTHS = 13
export const FIRST_MONTH: Month = addMonths(LAST_MONTH, 1 - MONTHS)
export const months: Month[] = Array.from({ length: MONTHS }, (_, i) => addMonths(FIRST_MONTH, i))
export const FIRST_DAY: Day = `${FIRST_MONTH}-01`
