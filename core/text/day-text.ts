import { LOCALE } from './locale'

const format = new Intl.DateTimeFormat(LOCALE, { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' })

/** A day as it is read, from a day or an instant: `23 Nov 2026`. */
export const dayText = (day: string): string => format.format(new Date(day.slice(0, 10)))
