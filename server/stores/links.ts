import { randomUUID } from 'node:crypto'
import { desc, eq } from 'drizzle-orm'
import { addDays, type Day } from '../../core/time/day'
import type { EstimateDocument } from '../../core/estimate/documents/document-types'
import { keptDocument } from '../../core/estimate/documents/kept-document'
import { LONGEST_LINK_DAYS } from '../../shared/contracts/estimates'
import type { Db } from '../db/database'
import { named } from './names'
import { estimateLink } from '../db/schema'
import { notFound } from '../problems/problem'
import { hashOf, linkClosed, newSecret } from './link-secrets'

/** Keeps what a link shows. @returns its id, and the secret that opens it: 256 random bits that are kept nowhere. */
export async function makeLink(
  db: Db,
  link: {
    estimateId: string
    version: number
    audience: EstimateDocument['audience']
    body: EstimateDocument
    expiresOn: string
    who: string
  },
): Promise<{ id: string; secret: string }> {
  const { secret, secretHash } = newSecret()
  const id = randomUUID()
  await db.insert(estimateLink).values({ ...link, id, secretHash })
  return { id, secret }
}

/** The last day on which a link opens: ones that were made for longer, before there was a limit, are cut to it. */
function lastDayOf({ expiresOn, madeAt }: Pick<typeof estimateLink.$inferSelect, 'expiresOn' | 'madeAt'>): Day {
  const last = addDays(madeAt.slice(0, 10), LONGEST_LINK_DAYS)
  return expiresOn < last ? expiresOn : last
}

/** Links of an estimate, the newest first; `opens` is false for one whose document cannot be shown by what may go into it today. */
export async function listLinks(db: Db, estimateId: string) {
  const rows = await db
    .select(named(estimateLink))
    .from(estimateLink)
    .where(eq(estimateLink.estimateId, estimateId))
    .orderBy(desc(estimateLink.madeAt))
  return rows.map(({ id, version, audience, expiresOn, revokedAt, who, madeAt, body }) => ({
    id,
    version,
    audience,
    expiresOn: lastDayOf({ expiresOn, madeAt }),
    revokedAt,
    who,
    madeAt,
    opens: keptDocument(body) !== null,
  }))
}

/** Of which estimate a link is; null where there is no such link. */
export async function estimateOfLink(db: Db, id: string): Promise<string | null> {
  const [found] = await db.select({ estimateId: estimateLink.estimateId }).from(estimateLink).where(eq(estimateLink.id, id))
  return found?.estimateId ?? null
}

/** Ends a link for good. */
export async function revokeLink(db: Db, id: string): Promise<void> {
  const [found] = await db
    .update(estimateLink)
    .set({ revokedAt: new Date().toISOString() })
    .where(eq(estimateLink.id, id))
    .returning({ id: estimateLink.id })
  if (!found) throw notFound('link', 'No link has that id.')
}

/**
 * What a link shows today: a customer's copy is built anew from what may go into one, also where it was made before that list.  @throws
 * Problem for one that never was, has expired or was revoked: all three read the same, so that nobody learns which.
 */
export async function openLink(db: Db, secret: string, today: string) {
  const [link] = await db
    .select()
    .from(estimateLink)
    .where(eq(estimateLink.secretHash, hashOf(secret)))
    .limit(1)
  const document = link ? keptDocument(link.body) : null
  if (!link || !document || link.revokedAt !== null || lastDayOf(link) < today) throw linkClosed()
  return { document, expiresOn: lastDayOf(link), madeAt: link.madeAt }
}
