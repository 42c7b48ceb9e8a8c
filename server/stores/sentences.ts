import { createHash } from 'node:crypto'
import { eq, getTableColumns } from 'drizzle-orm'
import type { Every } from '../../core/time/rhythm'
import type { SavedSentence, SavedSentenceBody, SavedSentenceInput } from '../../shared/contracts/spend-settings'
import { alone } from '../db/alone'
import type { Db } from '../db/database'
import { longSentence, savedSentence } from '../db/schema'
import { Problem, notFound } from '../problems/problem'
import { findJob, jobsOf, putJob, removeJob } from './jobs'
import { nameOf } from './names'

export type StoredSentence = typeof savedSentence.$inferSelect

/**
 * The sentences a person may see, the own and shared ones of makers whose are for them, with when each was sent last and what came of the
 * last try.
 */
export async function listSentences(db: Db, who: string, isFor: (makers: readonly string[]) => boolean): Promise<SavedSentence[]> {
  const [rows, jobs] = await Promise.all([
    db.select({ ...getTableColumns(savedSentence), ownerName: nameOf(savedSentence.owner) }).from(savedSentence),
    jobsOf(db, 'mail'),
  ])
  return rows
    .filter(row => row.owner === who || (row.shared && isFor([row.owner])))
    .map(({ ownerName, ...row }) => {
      const job = jobs.get(mailJob(row.id))
      return {
        ...row,
        owner: ownerName,
        mine: row.owner === who,
        lastSentAt: job?.doneAt ?? null,
        lastSaid: job?.outcome ?? null,
        nextAt: (row.schedule && job?.due) ?? null,
      }
    })
    .sort((a, b) => (a.folder === b.folder ? a.name.localeCompare(b.name) : a.folder.localeCompare(b.folder)))
}

/** Keeps the address of a Sentence that is too long for one. @returns the short id that stands for it, the same for the same address. */
export async function keepLongSentence(db: Db, query: SavedSentenceBody['query']): Promise<string> {
  const said = JSON.stringify(Object.entries(query).sort(([a], [b]) => (a < b ? -1 : 1)))
  const id = createHash('sha256').update(said).digest('base64url').slice(0, 20)
  await db.insert(longSentence).values({ id, query }).onConflictDoNothing()
  return id
}

/** @returns the address an id stands for; null where it stands for none. */
export async function findLongSentence(db: Db, id: string): Promise<SavedSentenceBody['query'] | null> {
  const [row] = await db.select().from(longSentence).where(eq(longSentence.id, id))
  return row?.query ?? null
}

/** The job that mails a sentence. */
export const mailJob = (sentence: string) => `mail ${sentence}`
const MAIL_PAUSE_SECONDS = 3600
/** Time to change one's mind, or to send it by hand. */
const FIRST_MS = 60_000

/**
 * Keeps a sentence under an id, and the job that mails it. Only its owner changes it. One that gets a schedule, or another, is sent within
 * a minute.
 */
export async function saveSentence(db: Db, id: string, input: SavedSentenceInput, who: string): Promise<void> {
  await alone(db, `sentence ${id}`, async tx => {
    await own(tx, id, who)
    const savedAt = new Date().toISOString()
    await tx
      .insert(savedSentence)
      .values({ id, ...input, owner: who, savedAt })
      .onConflictDoUpdate({ target: savedSentence.id, set: { ...input, savedAt } })
    await scheduleMail(tx, id, input.schedule, who)
  })
}

/** A mail is due by its rhythm; where that stays what it was, when it was due already. */
async function scheduleMail(
  db: Pick<Db, 'select' | 'insert'>,
  id: string,
  schedule: SavedSentenceInput['schedule'],
  tell: string,
): Promise<void> {
  const known = await findJob(db, mailJob(id))
  if (!schedule && !known) return
  const now = new Date().toISOString()
  const every: Every | null = schedule && {
    count: 1,
    unit: schedule.every,
    ...(schedule.every === 'month' && { day: Number(now.slice(8, 10)) }),
  }
  const isSame = known?.every && every && known.every.unit === every.unit && known.every.count === every.count
  const due = !every ? null : isSame ? known.due : new Date(Date.now() + FIRST_MS).toISOString()
  await putJob(db, {
    kind: 'mail',
    name: mailJob(id),
    argument: { sentence: id },
    every: isSame ? known.every : every,
    due,
    tell: known?.tell ?? tell,
    ...(!known && { pauseSeconds: MAIL_PAUSE_SECONDS }), // what a person has set stays
  })
}

export async function removeSentence(db: Db, id: string, who: string): Promise<void> {
  if (!(await own(db, id, who))) throw notFound('saved sentence', 'It may have been deleted already.')
  await db.transaction(async tx => {
    await tx.delete(savedSentence).where(eq(savedSentence.id, id))
    await removeJob(tx, mailJob(id))
  })
}

async function own(db: Pick<Db, 'select'>, id: string, who: string) {
  const [row] = await db
    .select({ owner: savedSentence.owner, name: nameOf(savedSentence.owner) })
    .from(savedSentence)
    .where(eq(savedSentence.id, id))
  if (row && row.owner !== who)
    throw new Problem('forbidden', 'not-yours', 'The sentence is not yours', `It belongs to ${row.name}. Keep your own under another name.`)
  return row
}

export async function findSentence(db: Db, id: string) {
  const [row] = await db.select().from(savedSentence).where(eq(savedSentence.id, id))
  return row
}
