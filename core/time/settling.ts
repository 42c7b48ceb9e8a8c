import { addDays, monthOf, type Day, type Month } from './day'

/** So many days after its end a billing period still changes. Common practice, no source. */
export const SETTLING_DAYS = 5

/** The first billing period that may still change, where charges reach to a day: earlier ones are final. */
export const settlingSince = (lastDay: Day): Month => monthOf(addDays(lastDay, -SETTLING_DAYS))
