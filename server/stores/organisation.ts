import { desc, eq } from 'drizzle-orm'
import type { AllocationPlan } from '../../core/allocation/plan'
import { differenceWords, listDifference, planDifference } from '../../core/allocation/plan-difference'
import type { PersonEntry } from '../../shared/contracts/people'
import type { Organisation } from '../../shared/contracts/reference-data'
import { alone } from '../db/alone'
import type { Db, Tx } from '../db/database'
import { conflict } from '../problems/problem'
import { allocationVersion, person } from '../db/schema'
import { settleClosedBy } from './closings'
import { nameOf } from './names'
import { personEntries } from './people'

export type SavedPlan = { version: number; plan: AllocationPlan; who: string; savedAt: string }

/**
 * Takes people and cost centres in together; the plan before stays as an older version. What is there is not overwritten unseen: whoever
 * sends a file names the version that it was held against.
 * @throws Problem with the difference where that is not the newest.
 */
export async function saveOrganisation(db: Db, { people, plan, basedOn, leaveClosed }: Organisation, who: string): Promise<number> {
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
    return addVersion(tx, { plan, leaveClosed }, who)
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

/** A version of the plan that was saved; null where there is none of that number. */
export async function planOfVersion(db: Pick<Db, 'select'>, asked: number): Promise<SavedPlan | null> {
  const { version, body, savedAt, who } = allocationVersion
  const [row] = await db
    .select({ version, plan: body, who: nameOf(who), savedAt })
    .from(allocationVersion)
    .where(eq(version, asked))
  return row ?? null
}

/** The versions of the plan, the newest first, without what they say. */
export function planVersions(db: Pick<Db, 'select'>): Promise<Omit<SavedPlan, 'plan'>[]> {
  const { version, savedAt, who } = allocationVersion
  return db
    .select({ version, who: nameOf(who), savedAt })
    .from(allocationVersion)
    .orderBy(desc(version))
}

/** What is saved as the next version of the plan. */
export type PlanToSave = {
  plan: AllocationPlan
  /** The version that it was made from. */
  basedOn: number
  /** Leaves closed months to the rules that hold for them. */
  leaveClosed?: boolean | undefined
}

async function addVersion(tx: Tx, { plan, leaveClosed }: Omit<PlanToSave, 'basedOn'>, who: string): Promise<number> {
  const [row] = await tx.insert(allocationVersion).values({ body: plan, who }).returning({ version: allocationVersion.version })
  if (!leaveClosed) await settleClosedBy(tx, row!.version)
  return row!.version
}

/** Saves a plan as the next version. @throws Problem when someone has saved since it was read. */
export async function savePlan(db: Db, { plan, basedOn, leaveClosed }: PlanToSave, who: string): Promise<number> {
  return alone(db, 'organisation', async tx => {
    const newest = await currentPlan(tx)
    if (newest && newest.version !== basedOn) {
      throw conflict(
        'The rules have changed meanwhile',
        `${newest.who} saved version ${newest.version} after you began with version ${basedOn}. Yours are still on the screen: read theirs, then save again.`,
      )
    }
    return addVersion(tx, { plan, leaveClosed }, who)
  })
}

/**
 * Saves someone, or (without an entry) takes them away.
 * @throws Problem where they would see cost centres that are not there, or nobody would be left who sees the whole company.
 */
export async function savePerson(db: Db, id: string, entry: Omit<PersonEntry, 'id'> | null): Promise<void> {
  await alone(db, 'organisation', async tx => {
    const others = (await personEntries(tx)).filter(one => one.id !== id)
    const centres = new Set((await currentPlan(tx))?.plan.centres.map(one => one.id))
    const unknown = entry?.bound?.find(centre => !centres.has(centre))
    if (unknown !== undefined)
      throw conflict('There is no such cost centre', `«${unknown}» is no cost centre of the saved plan: save it first, or choose another.`)
    const isLast = (!entry || entry.bound !== null) && !others.some(one => one.bound === null)
    if (isLast && (others.length || entry))
      throw conflict('Someone must see the whole company', 'Nobody would be left who does. Let someone else see all of it first.')
    if (!entry) await tx.delete(person).where(eq(person.id, id))
    else
      await tx
        .insert(person)
        .values({ id, ...entry })
        .onConflictDoUpdate({ target: person.id, set: entry })
  })
}
