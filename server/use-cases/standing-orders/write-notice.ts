import { randomUUID } from 'node:crypto'
import type { OrderDefinition } from '../../../core/standing-order/definition'
import { madeOn, type FoundResource } from '../../../core/standing-order/found'
import { manyOf } from '../../../core/text/many-of'
import { daysBetween, type Day } from '../../../core/time/day'
import { amountSaid } from '../../../shared/words/amounts'
import { ConnectorFailed } from '../../connectors/connector'
import { sendMail } from '../../connectors/mail'
import type { Db } from '../../db/database'
import { JobLost } from '../../problems/job-ends'
import { saidOf } from '../../problems/fault'
import { personEntries } from '../../stores/people'
import { claimNotices, deedFor, noteDeed, type StoredDeed } from '../../stores/standing-orders'
import type { About } from '../tell-outside'
import type { Outcome } from './outcome'

/** What writing to a person is kept as. */
export const noticeWords = (person: string) => `write to ${person}`

type Notice = { order: { id: string; definition: OrderDefinition; who: string }; person: string; found: FoundResource[]; today: Day }

/**
 * Writes to a person of all that an order has found of theirs, in one mail, and of each thing once: what was written of before, or may have
 * been, is not written of again. @returns what came of each, by resource.
 */
export async function writeNotice(db: Db, notice: Notice, nameOf: (id: string) => string, about: About): Promise<Map<string, Outcome>> {
  const { order, person, found } = notice
  const outcomes = new Map<string, Outcome>()
  const rows: { one: FoundResource; row: StoredDeed }[] = []
  for (const one of found) {
    const row = await deedFor(db, order.id, one.resourceId, noticeWords(person))
    if (row.state === 'approved' || row.state === 'failed') rows.push({ one, row })
    else
      outcomes.set(one.resourceId, { state: row.state === 'done' ? 'done before' : 'not known', said: row.steps.at(-1)?.outcome ?? null })
  }
  if (!rows.length) return outcomes
  const outcome = (state: Outcome['state'], said: string) => {
    for (const { one } of rows) outcomes.set(one.resourceId, { state, said })
    return outcomes
  }
  const to = (await personEntries(db)).find(({ id }) => id === person)?.mail
  if (!to) return outcome('failed', `${nameOf(person)} has no address`)
  const step = (result: string) => ({
    at: new Date().toISOString(),
    who: order.definition.name,
    what: `write to ${nameOf(person)}`,
    outcome: result,
  })
  const ids = rows.map(({ row }) => row.id)
  const noteAll = async (state: 'done' | 'failed' | 'not known', said: string) => {
    for (const id of ids) await noteDeed(db, id, state, step(said))
    return outcome(state, said)
  }
  await about(`the mail to ${to} was sent`)
  const key = randomUUID()
  // claimed before it is sent: where the process ends over it, nobody knows, and nothing is sent twice
  const claimed = new Set(await claimNotices(db, ids))
  const own = rows.filter(({ row }) => claimed.has(row.id))
  if (!own.length) return outcome('not known', 'it is being written by another')
  try {
    await sendMail({
      to: [to],
      key,
      files: [],
      ...noticeMail(
        notice,
        own.map(({ one }) => one),
        nameOf,
      ),
    })
  } catch (error) {
    if (error instanceof JobLost) throw error
    const isSure = error instanceof ConnectorFailed && error.sure
    return noteAll(isSure ? 'failed' : 'not known', saidOf(error, `the mail to ${to}`))
  }
  return noteAll('done', `sent to ${to}`)
}

/** One mail of all that was found of somebody's: each with where it is, how old it is, who made it and what it costs. */
export function noticeMail(
  { order, person, today }: Pick<Notice, 'order' | 'person' | 'today'>,
  found: readonly FoundResource[],
  nameOf: (id: string) => string,
): { subject: string; text: string } {
  const { does, name } = order.definition
  const base = process.env.RAIN_BARREL_URL
  const link = (path: string) => (base ? new URL(path, base).href : null)
  const page = link(`/savings/orders?one=${order.id}`)
  const lines = [
    `${nameOf(person)}, the standing order «${name}» has found ${manyOf(found.length, 'resource')} of yours:`,
    '',
    ...found.flatMap(one => [...factLines(one, today, link), '']),
    ...(does.deed === 'notify' && does.message ? [does.message, ''] : []),
    `To object, answer ${nameOf(order.who)} with the reason: each can be excepted, until a day or for good${page ? `, at ${page}` : ''}.`,
    'You are written to once about each.',
  ]
  return { subject: `${name}: ${manyOf(found.length, 'resource')}`, text: `${lines.join('\n')}\n` }
}

const said = (amounts: FoundResource['costSoFar']) => amounts.map(amountSaid).join(' and ') || 'nothing yet'

function factLines(found: FoundResource, today: Day, link: (path: string) => string | null): string[] {
  const made = madeOn(found)
  const [making] = found.makings
  const age = made && `${manyOf(daysBetween(made, today), 'day')} old (${making ? 'made' : 'first charged'} on ${made})`
  const since = age ?? (found.firstDay && `there before ${found.firstDay}`)
  const page = link(`/spend/resource?id=${encodeURIComponent(found.resourceId)}`)
  return [
    `- ${found.name}${found.type ? `, ${found.type}` : ''}`,
    `  ${[`account ${found.subAccountName}`, found.region && `region ${found.region}`, since].filter(Boolean).join(', ')}`,
    ...(found.saving ? [`  ${found.saving.title}`] : []),
    `  cost in the last 30 days: ${said(found.costOfMonth)}; so far: ${said(found.costSoFar)}`,
    ...(making ? [`  event ${making.id}: made by «${making.by}» at ${making.at}`] : []),
    ...(page ? [`  ${page}`] : []),
  ]
}
