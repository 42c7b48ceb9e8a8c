import { randomUUID } from 'node:crypto'
import type { NoticeWay } from '../../../core/standing-order/definition'
import { postChat } from '../../connectors/chat'
import { ConnectorFailed } from '../../connectors/connector'
import { sendMail } from '../../connectors/mail'
import type { Db } from '../../db/database'
import { JobLost } from '../../problems/job-ends'
import { saidOf } from '../../problems/fault'
import { personEntries } from '../../stores/people'
import { claimNotices, deedFor, noteDeed, type StoredDeed } from '../../stores/standing-orders'
import type { FoundResource } from '../../../core/standing-order/found'
import type { About } from '../tell-outside'
import { noticeText, type Notice } from './notice-text'
import type { Outcome } from './outcome'

/** What writing to a person is kept as. */
export const noticeWords = (person: string, by: NoticeWay) => `write to ${person} by ${by}`

/**
 * Writes to a person of all that an order has found of theirs, in one mail or message, and of each thing once: what was written of before,
 * or may have been, is not written of again. @returns what came of each, by resource.
 */
export async function writeNotice(
  db: Db,
  notice: Notice,
  by: NoticeWay,
  nameOf: (id: string) => string,
  about: About,
): Promise<Map<string, Outcome>> {
  const { order, person, found } = notice
  const outcomes = new Map<string, Outcome>()
  const rows: { one: FoundResource; row: StoredDeed }[] = []
  for (const one of found) {
    const row = await deedFor(db, order.id, one.resourceId, noticeWords(person, by))
    if (row.state === 'approved' || row.state === 'failed') rows.push({ one, row })
    else
      outcomes.set(one.resourceId, { state: row.state === 'done' ? 'done before' : 'not known', said: row.steps.at(-1)?.outcome ?? null })
  }
  const outcome = (some: typeof rows, state: Outcome['state'], said: string) => {
    for (const { one } of some) outcomes.set(one.resourceId, { state, said })
    return outcomes
  }
  if (!rows.length) return outcomes
  const to = by === 'chat' ? nameOf(person) : (await personEntries(db)).find(({ id }) => id === person)?.mail
  if (!to) return outcome(rows, 'failed', `${nameOf(person)} has no address`)
  await about(`the ${by} to ${to} was sent`)
  // claimed before it is sent: where the process ends over it, nobody knows, and nothing is sent twice
  const claimed = new Set(
    await claimNotices(
      db,
      rows.map(({ row }) => row.id),
    ),
  )
  outcome(rows, 'not known', 'it is being written by another')
  const own = rows.filter(({ row }) => claimed.has(row.id))
  if (!own.length) return outcomes
  const noteAll = async (state: 'done' | 'failed' | 'not known', said: string) => {
    const step = { at: new Date().toISOString(), who: order.definition.name, what: `write to ${nameOf(person)}`, outcome: said }
    for (const { row } of own) await noteDeed(db, row.id, state, step)
    return outcome(own, state, said)
  }
  const theirs = own.map(({ one }) => one)
  const { subject, text } = noticeText(notice, theirs, nameOf)
  const key = randomUUID()
  try {
    if (by === 'chat') await postChat(`${subject}\n\n${text}`, key)
    else await sendMail({ to: [to], key, files: [], subject, text })
  } catch (error) {
    if (error instanceof JobLost) throw error
    const isSure = error instanceof ConnectorFailed && error.sure
    return noteAll(isSure ? 'failed' : 'not known', saidOf(error, `the ${by} to ${to}`))
  }
  return noteAll('done', by === 'chat' ? `written to ${to} in the chat` : `sent to ${to}`)
}
