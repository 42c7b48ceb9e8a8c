import { treeWithin } from '../../core/allocation/tree'
import type { CostCentre } from '../../core/allocation/plan'
import type { Db } from '../db/database'
import type { Asker } from '../people'
import { currentPlan } from '../stores/organisation'

/** The cost centres of the first tree that are for whoever asks; none before a plan is loaded. */
export async function centresFor(db: Db, { bound }: Pick<Asker, 'bound'>): Promise<CostCentre[]> {
  const centres = (await currentPlan(db))?.plan.centres ?? []
  return bound ? treeWithin(centres, bound) : centres
}
