import { and, eq, getTableColumns, sql } from 'drizzle-orm'
import type { MailState } from '../../shared/contracts/statement-mails'
import type { Db } from '../db/database'
import { job, statementMail } from '../db/schema'

export type StatementMail = typeof statementMail.$inferSelect

/** What became of the mails of a closed month, and whether a job is at each: read in one statement, since a mail ends while one looks. */
export const mailsOf = (db: Pick<Db, 'select'>, month: string): Promise<(StatementMail & { isUnderWay: boolean })[]> =>
  db
    .select({ ...getTableColumns(statementMail), isUnderWay: sql<boolean>`${job.id} is not null` })
    .from(statementMail)
    .leftJoin(job, eq(job.name, sql`'statements ' || ${statementMail.month} || ' ' || ${statementMail.person}`))
    .where(eq(statementMail.month, month))

/**
 * Claims the one mail to someone of a month. @returns false where it was sent, is being sent, or nobody knows: then it must not be sent.
 */
export async function claimMail(db: Db, month: string, person: string): Promise<boolean> {
  const rows = await db
    .insert(statementMail)
    .values({ month, person, state: 'sending', said: '' })
    .onConflictDoUpdate({
      target: [statementMail.month, statementMail.person],
      set: { state: 'sending', said: '', at: sql`now()` },
      setWhere: eq(statementMail.state, 'failed'),
    })
    .returning({ person: statementMail.person })
  return rows.length > 0
}

/** Notes what became of a mail. @param from only where it is in that state. */
export async function noteMail(
  db: Pick<Db, 'update'>,
  { month, person }: Pick<StatementMail, 'month' | 'person'>,
  state: MailState,
  said: string,
  from?: MailState,
): Promise<void> {
  await db
    .update(statementMail)
    .set({ state, said, at: sql`now()` })
    .where(and(eq(statementMail.month, month), eq(statementMail.person, person), from && eq(statementMail.state, from)))
}

/** The job that sends somebody the statements of a month; {@link mailsOf} makes the same name in the database. */
export const statementMailJob = (month: string, person: string) => `statements ${month} ${person}`
/** Its kind. */
export const STATEMENT_MAIL = 'statement-mail'
