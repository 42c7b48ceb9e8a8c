import { callsFromSchedule } from './calls-from-schedule'
import { callsFromUsers } from './calls-from-users'
import type { Helper } from './helper'
import { storageFromGrowth } from './storage-from-growth'
import { transferFromVisits } from './transfer-from-visits'

export { runHelper, usualOf, type Helper } from './helper'

export const helpers: readonly Helper[] = [callsFromSchedule, callsFromUsers, transferFromVisits, storageFromGrowth]

/** The helpers that make a number for an input. */
export const helpersFor = (kind: string, field: string): Helper[] => helpers.filter(helper => helper.fills.includes(`${kind}.${field}`))
