import { desc, eq } from 'drizzle-orm'
import type { Estimate } from '../../core/estimate/estimate'
import type { SavedEstimate } from '../../shared/contracts/estimates'
import type { Db } from '../db/client'
import { estimateVersion } from '../db/schema'
import { conflict } from '../http/problem'

const asSaved = ({ estimateId, version, body, who, savedAt }: typeof estimateVersion.$inferSelect): SavedEstimate => ({ id: estimateId, version, estimate: body, who, savedAt })

/** The newest version of every estimate, last saved first. */
export async function listEstimates(db: Db): Promise<SavedEstimate[]> {
  const rows = await db.selectDistinctOn([estimateVersion.estimateId]).from(estimateVersion).orderBy(estimateVersion.estimateId, desc(estimateVersion.version))
  return rows.map(asSaved).sort((a, b) => a.savedAt < b.savedAt ? 1 : -1)
}

export async function findEstimate(db: Pick<Db, 'select'>, id: string): Promise<SavedEstimate | null> {
  const [row] = await db.select().from(estimateVersion).where(eq(estimateVersion.estimateId, id)).orderBy(desc(estimateVersion.version)).limit(1)
  return row ? asSaved(row) : null
}

/** Saves the next version. @throws Problem when someone has saved since the version it was made from. */
export async function saveEstimate(db: Db, id: string, basedOn: number | null, estimate: Estimate, who: string): Promise<number> {
  return db.transaction(async (tx) => {
    const newest = await findEstimate(tx, id)
    if ((newest?.version ?? null) !== basedOn) {
      throw conflict('The estimate has changed meanwhile', newest
        ? `${newest.who} saved version ${newest.version} after you began. Yours is still on the screen: take it out as JSON, open theirs, and bring yours in as an estimate of its own.`
        : 'It is not there any more. Take yours out as JSON and bring it in again.')
    }
    const version = (basedOn ?? 0) + 1
    await tx.insert(estimateVersion).values({ estimateId: id, version, body: estimate, who })
    return version
  })
}
