import { LOCALE } from '../../core/text/locale'

export { dayText } from '../../core/text/day-text'

const dayShort = new Intl.DateTimeFormat(LOCALE, { day: 'numeric', month: 'short', timeZone: 'UTC' })
const monthFormat = new Intl.DateTimeFormat(LOCALE, { month: 'long', year: 'numeric', timeZone: 'UTC' })

/** `23 Nov` */
export const dayShortText = (day: string) => dayShort.format(new Date(day.slice(0, 10)))
/** `November 2026` */
export const monthText = (month: string) => monthFormat.format(new Date(`${month.slice(0, 7)}-01`))

const weekdayFormat = new Intl.DateTimeFormat(LOCALE, { weekday: 'long', timeZone: 'UTC' })
/** `Friday` */
export const weekdayText = (day: string) => weekdayFormat.format(new Date(day.slice(0, 10)))
/** `1st`, `22nd`, `13th` */
export function ordinal(n: number): string {
  const ending = n % 100 >= 11 && n % 100 <= 13 ? 'th' : ({ 1: 'st', 2: 'nd', 3: 'rd' }[n % 10] ?? 'th')
  return `${n}${ending}`
}
