import type { Scope } from '../../core/spend/question'
import type { LineSource } from '../exports/lines/charge-lines'
import type { ChargeStore } from '../charges/charge-store'
import type { ChargesSeen } from '../charges/charges-seen'

/** The charges of a scope that whoever asks may see, for whoever writes them as lines. */
export const chargesOf = ({ seen, charges }: { seen: ChargesSeen; charges: ChargeStore }, scope: Scope): LineSource => ({
  rows: async () => (await seen.ask('rows', scope)).result,
  segments: (...args) => charges.segments(...args),
  entriesText: (...args) => charges.entries.textOf(...args),
})
