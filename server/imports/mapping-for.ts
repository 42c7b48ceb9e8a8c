import type { Mapping } from '../../core/focus/mapping/mapping'
import type { Db } from '../db/database'
import { Problem } from '../problems/problem'
import { findMapping } from '../stores/mappings'

/** The mapping a delivery is read through; null for FOCUS. @throws Problem when one is wanted and none is kept. */
export async function mappingFor(db: Db, source: string, mapped: boolean): Promise<Mapping | null> {
  if (!mapped) return null
  const mapping = await findMapping(db, source)
  if (!mapping)
    throw new Problem(
      'conflict',
      'no-mapping',
      'There is no mapping for this source',
      `Say under Sources how the files of «${source}» become charges, or send them as FOCUS.`,
    )
  return mapping
}
