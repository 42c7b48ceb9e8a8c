import { dayText } from '../../shared/words/days'
import { actingOn, byHand } from '../../core/opportunity/acting'
import { sum, Decimal, decimalText } from '../../core/money/decimal'
import { manyOf } from '../../core/text/many-of'
import { addDays } from '../../core/time/day'
import type { Opportunity } from '../../core/opportunity/opportunity'
import { amountSaid } from '../../shared/words/amounts'
import type {
  AnswerToList,
  ListsToMake,
  SavingsList,
  SavingsListItem,
  SavingsLists,
  SharedSavings,
} from '../../shared/contracts/savings-lists'
import type { Mail } from '../connectors/mail'
import { Problem, notFound } from '../problems/problem'
import { decideIn, listDecisions } from '../stores/decisions'
import { putJob } from '../stores/jobs'
import { linkClosed } from '../stores/link-secrets'
import { findOpportunity } from '../stores/savings'
import { currentPlan } from '../stores/organisation'
import { personEntries } from '../stores/people'
import {
  answersOf,
  findList,
  keepAnswer,
  keepLists,
  listLists,
  listOfSecret,
  makeListSecret,
  SAVINGS_LIST_MAIL,
  savingsListJob,
  type StoredAnswer,
  type StoredList,
} from '../stores/savings-lists'
import { detectorFor, foundSavings, unknownOpportunity, type FoundSaving, type SavingsWork } from './savings-found'
import type { Work } from './work'

/** So long a list can be opened. */
const OPEN_DAYS = 60
const today = () => new Date().toISOString().slice(0, 10)

/** Who owns the cost centre that each is on; null where it is on a pool or on nobody, or its centre has no owner. */
async function ownersOf({ database }: Pick<Work, 'database'>, rows: readonly FoundSaving[]): Promise<Map<string, string | null>> {
  const centres = (await currentPlan(database.db))?.plan.centres ?? []
  return new Map(rows.map(({ body, owner }) => [body.id, centres.find(({ id }) => id === owner?.target)?.owner ?? null]))
}

function itemOf(body: Opportunity): SavingsListItem {
  const detector = detectorFor(body)
  const { steps, undo } = byHand(body, detector) ?? actingOn(body, detector)!
  const { id, title, resourceName, service, subAccountName, region, currency, monthlySaving, minutesOfWork, risk, confidence } = body
  return {
    ...{ id, title, resourceName, service, subAccountName, region, currency, monthlySaving, minutesOfWork, risk, confidence },
    oneOff: body.oneOff?.amount ?? null,
    said: body.evidence.series.map(({ said }) => said),
    steps,
    undo,
  }
}

/** Makes a list for each owner of some opportunities, and lets each be mailed where that is wanted. */
export async function makeSavingsLists(work: SavingsWork, { ids, message, mail }: ListsToMake): Promise<SavingsLists> {
  const { db } = work.database
  const found = new Map((await foundSavings(work)).map(one => [one.body.id, one]))
  const rows = [...new Set(ids)].map(id => {
    const one = found.get(id)
    if (!one) throw unknownOpportunity(id)
    return one
  })
  const owners = await ownersOf(work, rows)
  const byOwner = new Map<string, FoundSaving[]>()
  for (const row of rows) {
    const owner = owners.get(row.body.id)
    if (owner) byOwner.set(owner, [...(byOwner.get(owner) ?? []), row])
  }
  const nobody = rows.filter(({ body }) => !owners.get(body.id)).map(({ body }) => body.id)
  if (!byOwner.size) return { lists: [], nobody }
  const expiresOn = addDays(today(), OPEN_DAYS)
  const made = await db.transaction(async tx => {
    const kept = await keepLists(
      tx,
      [...byOwner].map(([person, own]) => ({
        person,
        message: message || null,
        bodies: own.map(({ body }) => body),
        who: work.asker.id,
        expiresOn,
      })),
    )
    if (mail) for (const { id } of kept) await mailList(tx, id, work.asker.id)
    return kept
  })
  return { lists: await seenLists(work, made), nobody }
}

/** Lets the mail of a list be sent. */
async function mailList(tx: Parameters<typeof putJob>[0], list: string, who: string): Promise<void> {
  const due = new Date().toISOString()
  await putJob(tx, { kind: SAVINGS_LIST_MAIL, name: savingsListJob(list), argument: { list }, every: null, due, tell: who })
}

/** Every list that was handed over, the newest first, with what was answered; for whoever sees a part, those that they made. */
export async function allSavingsLists(work: SavingsWork): Promise<SavingsLists> {
  const lists = await listLists(work.database.db)
  return { lists: await seenLists(work, work.asker.bound ? lists.filter(({ who }) => who === work.asker.id) : lists), nobody: [] }
}

async function seenLists(
  { database, people }: Pick<SavingsWork, 'database' | 'people'>,
  lists: readonly StoredList[],
): Promise<SavingsList[]> {
  const [answers, entries] = await Promise.all([
    answersOf(
      database.db,
      lists.map(({ id }) => id),
    ),
    personEntries(database.db),
  ])
  return lists.map(({ who, person, bodies, ...list }) => ({
    ...list,
    ...{ person: people.nameOf(person), mail: entries.find(({ id }) => id === person)?.mail ?? null, madeBy: people.nameOf(who) },
    items: withAnswers(
      bodies.map(itemOf),
      answers.filter(({ list: of }) => of === list.id),
    ),
    saves: savesOf(bodies),
  }))
}

function withAnswers(items: readonly SavingsListItem[], answers: readonly StoredAnswer[]) {
  const byId = new Map(answers.map(({ opportunityId, answer, reason, at }) => [opportunityId, { answer, reason, at }]))
  return items.map(item => ({ ...item, answered: byId.get(item.id) ?? null }))
}

function savesOf(items: readonly Pick<SavingsListItem, 'currency' | 'monthlySaving'>[]) {
  const currencies = [...new Set(items.map(({ currency }) => currency))].sort()
  return currencies.map(currency => ({
    currency,
    amount: decimalText(sum(items.filter(one => one.currency === currency).map(({ monthlySaving }) => new Decimal(monthlySaving)))),
  }))
}

/** A list that whoever asks may handle. @throws Problem where there is none. */
async function listFor({ database, asker }: Pick<SavingsWork, 'database' | 'asker'>, id: string): Promise<StoredList> {
  const list = await findList(database.db, id)
  if (!list || (asker.bound && list.who !== asker.id)) throw notFound('list', `No list of savings has the id «${id}».`)
  return list
}

/** Makes a link that opens a list. @returns its path, which is told this once. */
export async function linkToList(work: SavingsWork, id: string): Promise<{ path: string }> {
  const list = await listFor(work, id)
  if (list.revokedAt !== null) throw new Problem('conflict', 'list-revoked', 'The list was withdrawn', 'Share it again.')
  return { path: pathOf(await makeListSecret(work.database.db, id)) }
}
const pathOf = (secret: string) => `/list/${secret}`

/** @throws Problem where there is no such list. */
export const mustBeList = listFor

/** What a link shows; the same problem for one that never was, has expired or was taken back. */
async function opened(work: Pick<Work, 'database'>, secret: string): Promise<StoredList> {
  const list = await listOfSecret(work.database.db, secret, today())
  if (!list) throw linkClosed()
  return list
}

export async function openSavingsList(work: SavingsWork, secret: string): Promise<SharedSavings> {
  const [{ person, message, madeBy, madeAt, expiresOn, items, saves }] = (await seenLists(work, [await opened(work, secret)])) as [
    SavingsList,
  ]
  return { person, message, madeBy, madeAt, expiresOn, items, saves }
}

/**
 * Takes an owner's answer to one opportunity of their list: it is agreed, or set aside with their reason, in their name. The last answer
 * counts. @throws Problem where the link does not open, or the list has no such opportunity.
 */
export async function answerSavingsList(work: SavingsWork, secret: string, asked: AnswerToList): Promise<SharedSavings> {
  const list = await opened(work, secret)
  const body = list.bodies.find(({ id }) => id === asked.id)
  if (!body) throw notFound('opportunity', 'This list has no such entry.')
  const { db } = work.database
  const [decisions, stored] = await Promise.all([listDecisions(db), findOpportunity(db, asked.id)])
  const state = decisions.get(asked.id)?.state ?? null
  // what is under way or done is not changed by an answer that comes late
  const isOpen = !stored?.action && state !== 'under way' && state !== 'done'
  const decided = asked.answer === 'agreed' ? ({ state: 'agreed' } as const) : ({ state: 'set aside', reason: asked.reason! } as const)
  await db.transaction(async tx => {
    await keepAnswer(tx, list.id, asked)
    if (isOpen) await decideIn(tx, [body], decided, list.person)
  })
  return openSavingsList(work, secret)
}

const aMonth = (amount: string, currency: string) => `${amountSaid({ amount, currency })} a month`

/** The mail of a list; in words why there is none. */
export async function savingsListMail(work: Pick<Work, 'database' | 'people'>, id: string): Promise<Omit<Mail, 'key'> | string> {
  const list = await findList(work.database.db, id)
  if (!list || list.revokedAt !== null) return 'The list was withdrawn.'
  const owner = (await personEntries(work.database.db)).find(one => one.id === list.person)
  if (!owner) return 'They are not there any more.'
  if (owner.mail === null) return 'They have no address.'
  const base = process.env.RAIN_BARREL_URL
  const path = base ? new URL(pathOf(await makeListSecret(work.database.db, id)), base).href : null
  const lines = [
    `${work.people.nameOf(list.who)} asks you to look at what could be saved on your resources:`,
    '',
    ...list.bodies.map(one => `- ${one.title} (${one.subAccountName}): ${aMonth(one.monthlySaving, one.currency)}`),
    '',
    `In all ${savesOf(list.bodies)
      .map(({ amount, currency }) => aMonth(amount, currency))
      .join(' and ')}.`,
    ...(list.message ? ['', list.message] : []),
    '',
    path
      ? `Agree to each, or refuse it with a reason, until ${dayText(list.expiresOn)}: ${path}`
      : 'Ask whoever sent this for the link on which you can answer.',
  ]
  return {
    to: [owner.mail],
    subject: `What could be saved: ${manyOf(list.bodies.length, 'entry', 'entries')}`,
    text: `${lines.join('\n')}\n`,
    files: [],
  }
}
