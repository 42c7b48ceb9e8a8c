import { createHash, randomBytes, randomUUID } from 'node:crypto'
import { desc, eq } from 'drizzle-orm'
import type { EstimateDocument } from '../../core/estimate/document'
import type { Db } from '../db/client'
import { estimateLink } from '../db/schema'
import { Problem, notFound } from '../http/problem'

const hashOf = (secret: string) => createHash('sha256').update(secret).digest('hex')

/** Keeps what a link shows. @returns its id, and the secret that opens it: 256 random bits that are kept nowhere. */
export async function makeLink(db: Db, link: { estimateId: string, version: number, audience: EstimateDocument['audience'], body: EstimateDocument, expiresOn: string, who: string }): Promise<{ id: string, secret: string }> {
  const secret = randomBytes(32).toString('base64url')
  const id = randomUUID()
  await db.insert(estimateLink).values({ ...link, id, secretHash: hashOf(secret) })
  return { id, secret }
}

export function listLinks(db: Db, estimateId: string) {
  const { id, version, audience, expiresOn, revokedAt, who, madeAt } = estimateLink
  return db.select({ id, version, audience, expiresOn, revokedAt, who, madeAt }).from(estimateLink).where(eq(estimateLink.estimateId, estimateId)).orderBy(desc(estimateLink.madeAt))
}

/** Ends a link for good. */
export async function revokeLink(db: Db, id: string): Promise<void> {
  const [found] = await db.update(estimateLink).set({ revokedAt: new Date().toISOString() }).where(eq(estimateLink.id, id)).returning({ id: estimateLink.id })
  if (!found) throw notFound('link', 'No link has that id.')
}

/** What a link shows today. @throws Problem for one that never was, has expired or was revoked: all three read the same, so that nobody learns which. */
export async function openLink(db: Db, secret: string, today: string) {
  const [link] = await db.select().from(estimateLink).where(eq(estimateLink.secretHash, hashOf(secret))).limit(1)
  if (!link || link.revokedAt !== null || link.expiresOn < today) throw new Problem(404, 'link-closed', 'This link does not open anything', 'It may have expired or been taken back. Ask whoever sent it for a new one.')
  return { document: link.body, expiresOn: link.expiresOn, madeAt: link.madeAt }
}
