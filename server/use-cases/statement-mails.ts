import type { CostCentre } from '../../core/allocation/plan'
import { monthText } from '../../shared/words/days'
import type { StatementMails } from '../../shared/contracts/statement-mails'
import type { Mail } from '../connectors/mail'
import { alone } from '../db/alone'
import type { Db } from '../db/database'
import { notFound } from '../problems/problem'
import { findClosed, type ClosedMonth } from '../stores/closings'
import { planOfVersion } from '../stores/organisation'
import { personEntries } from '../stores/people'
import { putJob } from '../stores/jobs'
import { mailsOf, noteMail, STATEMENT_MAIL, statementMailJob } from '../stores/statement-mails'
import { statementsFile } from './statements-file'
import type { Work } from './work'

/** The cost centres that somebody answers for and does not already by one above them. */
export function uppermostOf(person: string, centres: readonly CostCentre[]): CostCentre[] {
  const byId = new Map(centres.map(one => [one.id, one]))
  const isBelowOwn = ({ parent }: CostCentre): boolean => {
    for (
      let above = parent === null ? undefined : byId.get(parent);
      above;
      above = above.parent === null ? undefined : byId.get(above.parent)
    )
      if (above.owner === person) return true
    return false
  }
  return centres.filter(one => one.owner === person && !isBelowOwn(one))
}

type Reading = Pick<Db, 'select'>

/** The cost centres that a month was closed by. @throws Problem where it is open. */
async function closedCentres(db: Reading, month: string): Promise<{ closed: ClosedMonth; centres: CostCentre[] }> {
  const closed = await findClosed(db, month)
  if (!closed) throw notFound('closed month', `${month} is open: close it, then send its statements.`)
  const saved = await planOfVersion(db, closed.version)
  return { closed, centres: saved?.plan.centres ?? [] }
}

/** Who answers for cost centres of a closed month, and what became of their mail. */
export async function statementMails(db: Reading, month: string): Promise<StatementMails> {
  const { centres } = await closedCentres(db, month)
  const [people, mails] = await Promise.all([personEntries(db), mailsOf(db, month)])
  const owners = people.flatMap(({ id, name, mail }) => {
    const own = uppermostOf(id, centres)
    const sent = mails.find(({ person }) => person === id)
    if (!own.length) return []
    // claimed, and nothing is at it any more: what became of it could not be noted
    const isLeft = sent?.state === 'sending' && !sent.isUnderWay
    const became = isLeft ? { state: 'not known' as const, said: 'What became of it could not be noted.' } : sent
    return [{ person: id, name, mail, centres: own.map(one => one.name), state: became?.state ?? null, said: became?.said ?? null }]
  })
  return { owners }
}

/**
 * Lets their statements be mailed to everyone who has an address and got none; of whom nobody knows whether they did, only to those who are
 * named. @returns how it stands now.
 */
export async function mailStatements(
  { database: { db }, asker }: Pick<Work, 'database' | 'asker'>,
  month: string,
  again: readonly string[],
): Promise<StatementMails> {
  // who asks at the same time finds what is under way already
  await alone(db, `mails of ${month}`, async tx => {
    const { owners } = await statementMails(tx, month)
    for (const { person, mail, state } of owners) {
      const isAgain = state === 'not known' && again.includes(person)
      if (mail === null || !(state === null || state === 'failed' || isAgain)) continue
      if (isAgain) await noteMail(tx, { month, person }, 'failed', 'It is sent again.')
      const due = new Date().toISOString()
      const job = { kind: STATEMENT_MAIL, name: statementMailJob(month, person), argument: { month, person } }
      await putJob(tx, { ...job, every: null, due, tell: asker.id })
    }
  })
  return statementMails(db, month)
}

/** The mail of somebody's statements, each cost centre of theirs with all below it, as they may see them; in words why there is none. */
export async function statementMailTo(work: Work, month: string, person: string): Promise<Omit<Mail, 'key'> | string> {
  const { closed, centres } = await closedCentres(work.database.db, month)
  const owner = (await personEntries(work.database.db)).find(({ id }) => id === person)
  if (!owner) return 'They are not there any more.'
  if (owner.mail === null) return 'They have no address.'
  const own = uppermostOf(person, centres)
  const files = []
  for (const { id } of own) {
    const { bytes, mime, fileName } = await statementsFile(work, 'pdf', { month, measure: closed.measure, centre: id })
    files.push({ name: fileName, bytes, mime })
  }
  if (!files.length) return 'No cost centre is theirs any more.'
  const base = process.env.RAIN_BARREL_URL
  const lines = [
    `Your statements of ${monthText(month)}: ${own.map(({ name }) => name).join(', ')}, each with all below it.`,
    `The month was closed by ${work.people.nameOf(closed.who)}; what changes later arrives as an adjustment in a later month.`,
    ...(base ? ['', new URL(`/allocation?month=${month}`, base).href] : []),
  ]
  return { to: [owner.mail], subject: `Statements of ${monthText(month)}`, text: `${lines.join('\n')}\n`, files }
}
