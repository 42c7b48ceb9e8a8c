import { desc } from 'drizzle-orm'
import type { AllocationPlan } from '../../core/allocation/plan'
import { differenceWords, listDifference, planDifference } from '../../core/allocation/plan-difference'
import type { Organisation } from '../../shared/contracts/reference-data'
import { alone } from '../db/alone'
import type { Db } from '../db/database'
import { conflict } from '../problems/problem'
import { allocationVersion, person } from '../db/schema'
import { nameOf } from './names'
import { personEntries } from './people'

export type SavedPlan = { version: number; plan: AllocationPlan; who: string; savedAt: string }

/**
 * Takes people and cost centres in together; the plan before stays as an older version. What is there is not overwritten unseen: whoever
 * sends a file names the version that it was held against.
 * @throws Problem with the difference where that is not the newest.
 */
export async function saveOrganisation(db: Db, { people, plan, basedOn }: Organisation, who: string): Promise<number> {
  return alone(db, 'organisation', async tx => {
    const newest = await currentPlan(tx)
    if (newest && newest.version !== basedOn) {
      const known = listDifference(await personEntries(tx), people, ({ name }) => name)
      const difference = differenceWords(planDifference(newest.plan, plan), known)
      throw conflict(
        'There are cost centres and rules already',
        `Version ${newest.version} is there, saved by ${newest.who}. Beside it the file means: ${difference}. Nothing was taken; to take it all the same, send it with basedOn ${newest.version}.`,
      )
    }
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
