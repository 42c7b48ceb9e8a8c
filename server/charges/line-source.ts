import type { Scope } from '../../core/spend/question'
import type { LineSource } from '../exports/lines/charge-lines'
import type { Services } from '../services'

/** The charges that count now, for whoever writes them as lines. */
export const lineSource = ({ cube, charges }: Pick<Services, 'cube' | 'charges'>, scope: Scope): LineSource => ({
  rows: async () => (await cube.ask('rows', scope)).result,
  segments: (...args) => charges.segments(...args),
  entriesText: (...args) => charges.entriesText(...args),
})
