import { and, desc, eq } from 'drizzle-orm'
import { estimateSchema, type Estimate } from '../../core/estimate/estimate'
import type { SavedEstimate } from '../../shared/contracts/estimates'
import type { Db } from '../db/client'
import { estimateVersion } from '../db/schema'
import { conflict, notFound } from '../http/problem'

// bodies saved in an earlier format are read as the present one
const asSaved = ({ estimateId, version, body, who, savedAt, name }: typeof estimateVersion.$inferSelect): SavedEstimate => ({ id: estimateId, version, estimate: estimateSchema.parse(body), who, savedAt, name })

/** The newest version of every estimate, last saved first. */
export async function listEstimates(db: Db): Promise<SavedEstimate[]> {
  const rows = await db.selectDistinctOn([estimateVersion.estimateId]).from(estimateVersion).orderBy(estimateVersion.estimateId, desc(estimateVersion.version))
  return rows.map(asSaved).sort((a, b) => a.savedAt < b.savedAt ? 1 : -1)
}

/** An estimate as it was saved last, or in a version. */
export async function findEstimate(db: Pick<Db, 'select'>, id: string, version?: number): Promise<SavedEstimate | null> {
  const wanted = version === undefined ? eq(estimateVersion.estimateId, id) : and(eq(estimateVersion.estimateId, id), eq(estimateVersion.version, version))
  const [row] = await db.select().from(estimateVersion).where(wanted).orderBy(desc(estimateVersion.version)).limit(1)
  return row ? asSaved(row) : null
}

/** @throws Problem when there is none. */
export async function mustFindEstimate(db: Pick<Db, 'select'>, id: string, version?: number): Promise<SavedEstimate> {
  const found = await findEstimate(db, id, version)
  if (!found) throw notFound('estimate', `No estimate has the id «${id}»${version === undefined ? '' : ` and a version ${version}`}.`)
  return found
}

/** Saves the next version. @throws Problem when someone has saved since the version it was made from. */
export async function saveEstimate(db: Db, id: string, basedOn: number | null, estimate: Estimate, who: string, name: string | null = null): Promise<number> {
  return db.transaction(async (tx) => {
    const newest = await findEstimate(tx, id)
    if ((newest?.version ?? null) !== basedOn) {
      throw conflict('The estimate has changed meanwhile', newest
        ? `${newest.who} saved version ${newest.version} after you began. Yours is still on the screen: see what differs, then keep yours as an estimate of its own or take theirs.`
        : 'It is not there any more. Take yours out as JSON and bring it in again.')
    }
    const version = (basedOn ?? 0) + 1
    await tx.insert(estimateVersion).values({ estimateId: id, version, body: estimate, who, name })
    return version
  })
}

/** All states that were saved, the newest first. */
export function listVersions(db: Db, id: string) {
  const { version, who, savedAt, name } = estimateVersion
  return db.select({ version, who, savedAt, name }).from(estimateVersion).where(eq(estimateVersion.estimateId, id)).orderBy(desc(estimateVersion.version))
}

export async function nameVersion(db: Db, id: string, version: number, name: string): Promise<void> {
  await mustFindEstimate(db, id, version)
  await db.update(estimateVersion).set({ name }).where(and(eq(estimateVersion.estimateId, id), eq(estimateVersion.version, version)))
}
