import { and, desc, eq } from 'drizzle-orm'
import { estimateSchema, type Estimate } from '../../core/estimate/estimate'
import type { Filing, ListedEstimate, SavedEstimate } from '../../shared/contracts/estimates'
import { alone } from '../db/alone'
import type { Db } from '../db/database'
import { named } from './names'
import { estimateFiling, estimateVersion } from '../db/schema'
import { conflict, notFound, Problem } from '../problems/problem'

// bodies saved in an earlier format are read as the present one
function asSaved({ estimateId, version, body, who, savedAt, name }: typeof estimateVersion.$inferSelect): SavedEstimate {
  const read = estimateSchema.safeParse(body)
  if (!read.success)
    throw new Problem(
      'conflict',
      'unreadable-estimate',
      'The estimate cannot be read',
      `Version ${version} holds what an estimate may not have: ${read.error.issues
        .slice(0, 3)
        .map(issue => `${issue.path.join('.')}: ${issue.message}`)
        .join('; ')}. Open an earlier version, or take it out as JSON and mend it there.`,
    )
  return { id: estimateId, version, estimate: read.data, who, savedAt, name }
}

/** The newest version of every estimate, last saved first, with where it is filed. One that cannot be read says why; the others stand. */
export async function listEstimates(db: Db): Promise<ListedEstimate[]> {
  const [rows, filings] = await Promise.all([
    db
      .selectDistinctOn([estimateVersion.estimateId], named(estimateVersion))
      .from(estimateVersion)
      .orderBy(estimateVersion.estimateId, desc(estimateVersion.version)),
    db.select().from(estimateFiling),
  ])
  const filed = new Map(filings.map(f => [f.estimateId, f]))
  return rows
    .map(({ estimateId: id, version, body, who, savedAt, name }): ListedEstimate => {
      const read = estimateSchema.safeParse(body)
      const { folder = '', putAway = false } = filed.get(id) ?? {}
      const title: unknown = (body as { name?: unknown } | null)?.name
      return {
        id,
        version,
        estimate: read.data ?? null,
        title: typeof title === 'string' ? title : id,
        problem: read.success
          ? null
          : read.error.issues
              .slice(0, 3)
              .map(issue => `${issue.path.join('.')}: ${issue.message}`)
              .join('; '),
        who,
        savedAt,
        name,
        folder,
        putAway,
      }
    })
    .sort((a, b) => (a.savedAt < b.savedAt ? 1 : -1))
}

/** Who has saved versions of estimates, of one where an id is given; by id. */
export async function saversOf(db: Pick<Db, 'selectDistinct'>, id?: string): Promise<Map<string, string[]>> {
  const rows = await db
    .selectDistinct({ id: estimateVersion.estimateId, who: estimateVersion.who })
    .from(estimateVersion)
    .where(id === undefined ? undefined : eq(estimateVersion.estimateId, id))
  const savers = new Map<string, string[]>()
  for (const { id, who } of rows) savers.set(id, [...(savers.get(id) ?? []), who])
  return savers
}

/** Files an estimate in a folder, puts it away or brings it back. @throws Problem when there is none. */
export async function fileEstimate(db: Db, id: string, { folder, putAway }: Filing, who: string): Promise<void> {
  const [known] = await db
    .select({ id: estimateVersion.estimateId })
    .from(estimateVersion)
    .where(eq(estimateVersion.estimateId, id))
    .limit(1)
  if (!known) throw noEstimate(id)
  const filedAt = new Date().toISOString()
  await db
    .insert(estimateFiling)
    .values({ estimateId: id, folder, putAway, who, filedAt })
    .onConflictDoUpdate({ target: estimateFiling.estimateId, set: { folder, putAway, who, filedAt } })
}

export const noEstimate = (id: string, version?: number) =>
  notFound(
    'estimate',
    `No estimate has the id «${id}»${version === undefined ? '' : ` and a version ${version}`}. Look for it by its name under Estimates.`,
  )

/** An estimate as it was saved last, or in a version. */
async function findEstimate(db: Pick<Db, 'select'>, id: string, version?: number): Promise<SavedEstimate | null> {
  const wanted =
    version === undefined
      ? eq(estimateVersion.estimateId, id)
      : and(eq(estimateVersion.estimateId, id), eq(estimateVersion.version, version))
  const [row] = await db.select(named(estimateVersion)).from(estimateVersion).where(wanted).orderBy(desc(estimateVersion.version)).limit(1)
  return row ? asSaved(row) : null
}

/** @throws Problem when there is none. */
export async function mustFindEstimate(db: Pick<Db, 'select'>, id: string, version?: number): Promise<SavedEstimate> {
  const found = await findEstimate(db, id, version)
  if (!found) throw noEstimate(id, version)
  return found
}

/** Saves the next version. @throws Problem when someone has saved since the version it was made from. */
export async function saveEstimate(
  db: Db,
  id: string,
  basedOn: number | null,
  estimate: Estimate,
  who: string,
  name: string | null = null,
): Promise<number> {
  return alone(db, `estimate ${id}`, async tx => {
    const newest = await findEstimate(tx, id)
    if ((newest?.version ?? null) !== basedOn) {
      throw conflict(
        'The estimate has changed meanwhile',
        newest
          ? `${newest.who} saved version ${newest.version} after you began. Yours is still on the screen: see what differs, then keep yours as an estimate of its own or take theirs.`
          : 'It is not there any more. Take yours out as JSON and bring it in again.',
      )
    }
    const version = (basedOn ?? 0) + 1
    await tx.insert(estimateVersion).values({ estimateId: id, version, body: estimate, who, name })
    return version
  })
}

/** All states that were saved, the newest first. */
export function listVersions(db: Db, id: string) {
  const { version, who, savedAt, name } = named(estimateVersion)
  return db
    .select({ version, who, savedAt, name })
    .from(estimateVersion)
    .where(eq(estimateVersion.estimateId, id))
    .orderBy(desc(estimateVersion.version))
}

export async function nameVersion(db: Db, id: string, version: number, name: string): Promise<void> {
  await mustFindEstimate(db, id, version)
  await db
    .update(estimateVersion)
    .set({ name })
    .where(and(eq(estimateVersion.estimateId, id), eq(estimateVersion.version, version)))
}
