import type { Scope } from '../../core/spend/question'
import { billingPeriod } from '../db/schema'
import type { LineSource } from '../exports/lines/charge-lines'
import type { Services } from '../services'

/** The charges that count now, for whoever writes them as lines. */
export const lineSource = ({ database, cube, charges }: Pick<Services, 'database' | 'cube' | 'charges'>, scope: Scope): LineSource => ({
  narrowed: async () => (await cube.ask('narrowed', scope)).result,
  periods: () => database.db.select().from(billingPeriod).orderBy(billingPeriod.start, billingPeriod.source),
  segments: (...args) => charges.segments(...args),
  entriesText: (...args) => charges.entriesText(...args),
})
