import { randomUUID } from 'node:crypto'
import { and, desc, eq, inArray, isNull, or, sql } from 'drizzle-orm'
import type { AnswerToList } from '../../shared/contracts/savings-lists'
import type { MailState } from '../../shared/contracts/statement-mails'
import type { Opportunity } from '../../core/opportunity/opportunity'
import type { Db } from '../db/database'
import { savingsAnswer, savingsList, savingsListLink } from '../db/schema'
import { hashOf, newSecret } from './link-secrets'

export type StoredList = typeof savingsList.$inferSelect
export type StoredAnswer = typeof savingsAnswer.$inferSelect

/** Keeps lists that are handed over. @returns them, all or none. */
export async function keepLists(
  db: Pick<Db, 'insert'>,
  lists: readonly { person: string; message: string | null; bodies: Opportunity[]; who: string; expiresOn: string }[],
): Promise<StoredList[]> {
  return db
    .insert(savingsList)
    .values(lists.map(list => ({ ...list, id: randomUUID() })))
    .returning()
}

export const listLists = (db: Pick<Db, 'select'>): Promise<StoredList[]> =>
  db.select().from(savingsList).orderBy(desc(savingsList.madeAt), savingsList.id)

export async function findList(db: Pick<Db, 'select'>, id: string): Promise<StoredList | null> {
  return (await db.select().from(savingsList).where(eq(savingsList.id, id)))[0] ?? null
}

/** What was answered, by list. */
export async function answersOf(db: Pick<Db, 'select'>, lists: readonly string[]): Promise<StoredAnswer[]> {
  return lists.length
    ? db
        .select()
        .from(savingsAnswer)
        .where(inArray(savingsAnswer.list, [...lists]))
    : []
}

export async function keepAnswer(db: Pick<Db, 'insert'>, list: string, { id, answer, reason }: AnswerToList): Promise<void> {
  const row = { answer, reason: reason ?? null, at: new Date().toISOString() }
  await db
    .insert(savingsAnswer)
    .values({ list, opportunityId: id, ...row })
    .onConflictDoUpdate({ target: [savingsAnswer.list, savingsAnswer.opportunityId], set: row })
}

/** Makes a secret that opens a list: 256 random bits that are kept nowhere. */
export async function makeListSecret(db: Pick<Db, 'insert'>, list: string): Promise<string> {
  const { secret, secretHash } = newSecret()
  await db.insert(savingsListLink).values({ secretHash, list })
  return secret
}

/** The list that a secret opens; null for one that never was, has expired or was revoked. */
export async function listOfSecret(db: Pick<Db, 'select'>, secret: string, today: string): Promise<StoredList | null> {
  const [row] = await db
    .select({ list: savingsList })
    .from(savingsListLink)
    .innerJoin(savingsList, eq(savingsList.id, savingsListLink.list))
    .where(eq(savingsListLink.secretHash, hashOf(secret)))
  return row && row.list.revokedAt === null && row.list.expiresOn >= today ? row.list : null
}

/** Takes a list back: nothing opens it any more. @returns whether there was one. */
export async function revokeList(db: Pick<Db, 'update'>, id: string): Promise<boolean> {
  const rows = await db
    .update(savingsList)
    .set({ revokedAt: sql`now()` })
    .where(eq(savingsList.id, id))
    .returning({ id: savingsList.id })
  return rows.length > 0
}

/** Claims the one mail of a list. @returns false where it was sent, is being sent, or nobody knows. */
export async function claimListMail(db: Pick<Db, 'update'>, id: string): Promise<boolean> {
  const free = or(isNull(savingsList.mailState), eq(savingsList.mailState, 'failed'))
  const rows = await db
    .update(savingsList)
    .set({ mailState: 'sending', mailSaid: '' })
    .where(and(eq(savingsList.id, id), free))
    .returning({ id: savingsList.id })
  return rows.length > 0
}

/** Notes what became of a list's mail. @param from only where it is in that state. */
export async function noteListMail(
  db: Pick<Db, 'update'>,
  id: string,
  mailState: MailState,
  mailSaid: string,
  from?: MailState,
): Promise<void> {
  await db
    .update(savingsList)
    .set({ mailState, mailSaid })
    .where(and(eq(savingsList.id, id), from && eq(savingsList.mailState, from)))
}

/** The job that mails a list, and its kind. */
export const SAVINGS_LIST_MAIL = 'savings-list-mail'
export const savingsListJob = (id: string) => `savings list ${id}`
