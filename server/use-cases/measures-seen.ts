import type { MeasureState } from '../../shared/contracts/measures'
import { notFound } from '../problems/problem'
import { findMeasure, measureValues } from '../stores/measures'
import { centresFor } from './centres'
import type { Work } from './work'

type Seeing = Pick<Work, 'asker' | 'database'>

/** Of which cost centres whoever asks sees what was counted; null for all. */
export async function measuredCentres({ asker, database }: Seeing): Promise<string[] | null> {
  return asker.bound ? (await centresFor(database.db, asker)).map(({ id }) => id) : null
}

/** A measure with what was counted, as far as whoever asks may see it. @throws Problem where nothing of it is for them. */
export async function measureSeen(work: Seeing, name: string): Promise<MeasureState> {
  const { db } = work.database
  const measure = await findMeasure(db, name)
  const centres = await measuredCentres(work)
  // within a bound there is the first tree only, and a measure is there where something of it is theirs
  const values = measure && !(centres && measure.tree !== null) ? await measureValues(db, name, centres) : []
  if (!measure || (centres && !values.length)) throw notFound('measure', `No business measure is called «${name}».`)
  const { name: called, unit, grain, tree, ...saved } = measure
  return { name: called, unit, grain, tree, saved: centres ? null : saved, values }
}
