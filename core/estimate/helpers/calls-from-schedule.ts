import { input, multiply } from '../../working/working'
import { ESTIMATE_MONTH_HOURS } from '../../time/day'
import { number, words } from '../components/field'
import type { Helper } from './helper'

const monthHours: Record<string, number> = {
  '730 hours, as estimates count': ESTIMATE_MONTH_HOURS,
  '31 days, 744 hours': 744,
  '30 days, 720 hours': 720,
}

/** Calls of functions that run by the clock: functions × times an hour × hours of the month, which of the two months said. */
export const callsFromSchedule: Helper = {
  id: 'calls-from-schedule',
  label: 'from a schedule',
  fills: ['functions.calls'],
  fields: [
    number('functions', 'functions', { max: 100_000, whole: true, usual: '1', help: 'That run by the clock.' }),
    number('perHour', 'runs an hour, each', { max: 36_000, usual: '1', help: '1 is hourly, 60 every minute, 0.041666667 once a day.' }),
    words('month', 'month', Object.keys(monthHours), 'A calendar month of 31 days has 744 hours, the month of estimates 730.'),
  ],
  make: ({ number: n, text }) =>
    multiply('calls a month', [n('functions'), n('perHour'), input('hours of the month', monthHours[text('month')]!, 'h')]),
}
