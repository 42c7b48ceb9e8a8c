import { desc } from 'drizzle-orm'
import type { AllocationPlan } from '../../core/allocation/plan'
import type { Organisation } from '../../shared/contracts/reference-data'
import { alone } from '../db/alone'
import type { Db } from '../db/database'
import { conflict } from '../problems/problem'
import { allocationVersion, person } from '../db/schema'
import { nameOf } from './names'

export type SavedPlan = { version: number; plan: AllocationPlan; who: string; savedAt: string }

/** Takes people and cost centres in together; the plan before stays as an older version. */
export async function saveOrganisation(db: Db, { people, plan }: Organisation, who: string): Promise<number> {
  return alone(db, 'organisation', async tx => {
    await tx.delete(person)
    if (people.length) await tx.insert(person).values(people)
    const [row] = await tx.insert(allocationVersion).values({ body: plan, who }).returning({ version: allocationVersion.version })
    return row!.version
  })
}

/** The newest plan; null before one is loaded. */
export async function currentPlan(db: Pick<Db, 'select'>): Promise<SavedPlan | null> {
  const { version, body, savedAt, who } = allocationVersion
  const [row] = await db
    .select({ version, plan: body, who: nameOf(who), savedAt })
    .from(allocationVersion)
    .orderBy(desc(version))
    .limit(1)
  return row ?? null
}

/** Saves a plan as the next version. @throws Problem when someone has saved since it was read. */
export async function savePlan(db: Db, plan: AllocationPlan, basedOn: number, who: string): Promise<number> {
  return alone(db, 'organisation', async tx => {
    const newest = await currentPlan(tx)
    if (newest && newest.version !== basedOn) {
      throw conflict(
        'The rules have changed meanwhile',
        `${newest.who} saved version ${newest.version} after you began with version ${basedOn}. Yours are still on the screen: read theirs, then save again.`,
      )
    }
    const [row] = await tx.insert(allocationVersion).values({ body: plan, who }).returning({ version: allocationVersion.version })
    return row!.version
  })
}
