import { z } from 'zod'
import { isSameLookup, lookupDifference, lookupDifferenceWords } from '../../../core/spend/lookup-difference'
import { manyOf } from '../../../core/text/many-of'
import { loadWords } from '../../../core/unit-cost/measure-months'
import { today } from '../../../shared/today'
import { addDays } from '../../../core/time/day'
import { capabilityOf, findConnector } from '../../connectors/connect'
import { findLookup, putLookup } from '../../stores/lookups'
import { lastCounted, saveMeasures } from '../../stores/measures'
import type { JobKind } from './kind'

/** So far back counts are asked for again: a register may put right what it told. */
const DAYS_AGAIN = 40

/** Asks a register for its lookups and for what was counted, and keeps what is new; earlier states of lookups stay. */
export const registerJobKind: JobKind<{ connection: string }> = {
  kind: 'register',
  does: 'Fetch lookups and measures',
  argument: z.object({ connection: z.string() }),
  stops: false,
  describe: async ({ connection }) => ({ about: connection, page: '/allocation/lookups' }),
  async run({ connection }, { services, who }) {
    const { db } = services.database
    const asked = capabilityOf(await findConnector(db, connection), 'register')
    const said: string[] = []
    try {
      for (const { name, lookup } of await asked.lookups()) {
        const before = await findLookup(db, name)
        const difference = before && lookupDifference(before.lookup, lookup)
        if (difference && isSameLookup(difference)) continue
        await putLookup(db, name, lookup, who)
        said.push(`lookup «${name}»: ${difference ? lookupDifferenceWords(difference) : manyOf(lookup.entries.length, 'entry', 'entries')}`)
      }
      for (const name of await asked.measures()) {
        const load = await asked.measuredSince(name, askedSince(await lastCounted(db, name)))
        if (!load.values.length) continue
        const [difference] = await saveMeasures(db, [{ name, ...load }], who, true)
        if (difference!.added || difference!.changed) said.push(`${name}: ${loadWords(difference!)}`)
      }
    } finally {
      // what was kept counts, whatever failed after it
      if (said.length) await services.cube.refreshReference()
    }
    return { said: said.join('; ') || 'nothing new', result: undefined }
  },
}

/** From which day on counts are asked for; one that is told for a day to come puts nothing off. */
function askedSince(last: string | null): string {
  if (last === null) return '1970-01-01'
  const now = today()
  return addDays(last < now ? last : now, -DAYS_AGAIN)
}

export const registerJob = (connection: string) => `register ${connection}`
