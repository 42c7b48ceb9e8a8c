import { whyBraked } from '../../../core/standing-order/brakes'
import { conditionsOf } from '../../../core/standing-order/definition'
import type { FoundResource } from '../../../core/standing-order/found'
import { exceptionWords, holds, verdictOn, type OrderDeed, type Verdict } from '../../../core/standing-order/verdict'
import { manyOf } from '../../../core/text/many-of'
import type { Day } from '../../../core/time/day'
import type { JobProgress } from '../../../shared/contracts/jobs'
import type { ItemState, RunCause, RunItem, RunState } from '../../../shared/contracts/standing-orders'
import { saidOf } from '../../problems/fault'
import { Problem } from '../../problems/problem'
import { JobLost, JobStopped } from '../../problems/job-ends'
import { madeSince } from '../../stores/observed'
import { personEntries } from '../../stores/people'
import {
  beginRun,
  doneBy,
  findingsOf,
  forgetRuns,
  listExceptions,
  noteFindings,
  noteRun,
  orderNow,
  setOrder,
  type StoredOrder,
} from '../../stores/standing-orders'
import type { Asker } from '../../people'
import { patiently } from '../patiently'
import type { About } from '../tell-outside'
import { workFor, type Tools } from '../work'
import { actOnSaving } from './act-on-saving'
import { findResources, orderDay } from './found-resources'
import { findSavings } from './found-savings'
import type { Outcome } from './outcome'
import { TagConnections, tagResource, tagWords } from './tag-resource'
import { noticeWords, writeNotice } from './write-notice'

/** What a run works with, and why it is. */
export type OrderRunning = {
  services: Tools
  signal: AbortSignal
  about: About
  progress: (progress: JobProgress) => void
  cause: RunCause
  who: string
  isDry: boolean
  /** Once, beyond its brake. */
  beyondBrake: boolean
}

/** Runs of an order that are kept. */
const RUNS_KEPT = 60
/** So many are dealt with at least between two times that it is kept how far a run is, and it is kept so often at most. */
const KEPT_EVERY = 10
const MOST_KEPT = 20

/**
 * Runs a standing order: finds, checks each with its cloud, and does what it does, or in a dry run says what it would. What fails with one
 * ends nothing else. @returns what came of it, in words. @throws what ends it before it is whole, with what was done kept.
 */
export async function runOrder(order: StoredOrder, running: OrderRunning): Promise<string> {
  const { database, people } = running.services
  const { db } = database
  const { isDry, cause, who } = running
  const run = await beginRun(db, { order: order.id, revision: order.revision, isDry, cause, who })
  const items: RunItem[] = []
  try {
    const { state, said, toldTo } = await go(order, running, items, items => noteRun(db, run, 'running', '', items))
    await noteRun(db, run, state, said, items)
    if (isDry && state !== 'not whole') await setOrder(db, order.id, { triedRevision: order.revision })
    if (toldTo !== null) await setOrder(db, order.id, { toldTo })
    await forgetRuns(db, order.id, RUNS_KEPT)
    return `${people.nameOf(who)}: ${said}`
  } catch (error) {
    const isStopped = error instanceof JobStopped
    const said = isStopped ? 'Somebody has stopped it.' : saidOf(error, `standing order ${order.definition.name}`)
    if (!(error instanceof JobLost) || isStopped) await noteRun(db, run, isStopped ? 'not whole' : 'failed', said, items)
    throw error
  }
}

type Went = { state: RunState; said: string; toldTo: number | null }

async function go(order: StoredOrder, running: OrderRunning, items: RunItem[], keep: (items: RunItem[]) => Promise<void>): Promise<Went> {
  const { services, isDry, beyondBrake, cause } = running
  const { db } = services.database
  const seen = services.cube.within(null)
  const today = await orderDay({ seen })
  if (today === null) return { state: 'not whole', said: 'There are no charges yet: nothing was looked for.', toldTo: null }
  const told = cause === 'event' ? await madeSince(db, order.toldTo) : null
  const found = await findAll(order, running, told?.resources ?? null, today)
  const foundSince =
    isDry || told
      ? await findingsOf(db, order.id)
      : await noteFindings(
          db,
          order.id,
          found.map(({ resourceId }) => resourceId),
          today,
        )
  const exceptions = (await listExceptions(db)).filter(one => one.order === order.id)
  const around = { register: await personEntries(db), exceptions, foundSince, today }
  const verdicts = found.map(one => ({ found: one, verdict: verdictOn(one, order.definition, around) }))
  const connections = new TagConnections(db)
  const before = await doneBy(db, order.id)
  for (const [at, { found: one, verdict }] of verdicts.entries()) {
    stopIfWanted(running)
    if (at % KEPT_EVERY === 0) running.progress({ done: at, of: verdicts.length, unit: 'resources', words: 'looking at each' })
    items.push(await looked(one, verdict, { connections, before }, running))
  }
  const toDo = items.filter(({ state }) => state === 'would do')
  const why = beyondBrake
    ? null
    : whyBraked(
        toDo.map(one => one.found),
        order.definition.brake,
      )
  const toldTo = told?.toldTo ?? null
  // what was told of while its brake held is looked at again in the next whole run
  if (why) return { state: 'braked', said: `${capital(why)}. Nothing was done.`, toldTo }
  if (isDry)
    return { state: 'done', said: `Would do ${toDo.length} of ${manyOf(items.length, 'thing')} found. Nothing was done.`, toldTo: null }
  for (const one of items) one.state = one.state === 'would do' ? 'not begun' : one.state === 'would ask' ? 'asked' : one.state
  await keep(items)
  await doAll(order, running, items, verdicts, connections, keep, today)
  return { state: 'done', said: summary(items), toldTo }
}

const capital = (text: string) => text[0]!.toUpperCase() + text.slice(1)

function stopIfWanted({ signal }: OrderRunning): void {
  if (signal.aborted) throw signal.reason
}

function findAll(
  { definition }: StoredOrder,
  { services }: OrderRunning,
  told: readonly { connection: string; id: string }[] | null,
  today: Day,
): Promise<FoundResource[]> {
  const { database, cube } = services
  const seen = cube.within(null)
  const { finds, name } = definition
  const conditions = conditionsOf(definition)
  return finds.what === 'resources'
    ? findResources({ db: database.db, seen }, { ...finds, conditions }, told)
    : findSavings(workFor(services, orderAsker(name)), { ...finds, conditions }, today)
}

/** What an order is called where somebody is named who did something. */
export const orderAsker = (name: string): Asker => ({ id: `standing order «${name}»`, name: `standing order «${name}»`, bound: null })

const deedWords = (deed: OrderDeed, nameOf: (id: string) => string): string =>
  deed.deed === 'tag' ? tagWords(deed.key, deed.value) : deed.deed === 'notify' ? `write to ${nameOf(deed.person)}` : 'act on it'

/** What a deed is kept as, so that it is done once. */
const keptAs = (deed: OrderDeed): string =>
  deed.deed === 'tag' ? tagWords(deed.key, deed.value) : deed.deed === 'notify' ? noticeWords(deed.person, deed.by) : deed.saving

/** One thing that was found, with what is to become of it: a tag is checked with its cloud, also in a dry run. */
async function looked(
  found: FoundResource,
  verdict: Verdict,
  { connections, before }: { connections: TagConnections; before: Awaited<ReturnType<typeof doneBy>> },
  { services, signal }: OrderRunning,
): Promise<RunItem> {
  const item = (state: ItemState, more: Partial<RunItem> = {}): RunItem => ({
    ...{ found, state, does: null, because: verdict.because, said: null, candidates: [], key: null, ...more },
  })
  const does = verdict.to === 'do' ? deedWords(verdict.deed, id => services.people.nameOf(id)) : null
  const was = verdict.to === 'do' ? before(found.resourceId, keptAs(verdict.deed)) : null
  // what may have been written is not written again
  if (was && (was.state === 'done' || (verdict.to === 'do' && verdict.deed.deed === 'notify')))
    return item(was.state === 'done' ? 'done before' : 'not known', { does, said: was.steps.at(-1)?.outcome ?? null })
  // whether a tag was set whose answer never came is asked of the cloud when it is tried again
  if (was) return item('would do', { does })
  const tagKey = verdict.to === 'ask' ? verdict.key : verdict.to === 'do' && verdict.deed.deed === 'tag' ? verdict.deed.key : null
  if (tagKey !== null) {
    try {
      const { why } = await patiently(() => connections.whyNot(found.provider, found.resourceId, tagKey), signal)
      if (why) return item('left alone', { because: why })
    } catch (error) {
      const said = saidOf(error, `asking about ${found.resourceId}`)
      // what is not connected is none of an order's; a cloud that does not answer keeps it from what it is for
      return error instanceof Problem ? item('left alone', { because: said }) : item('failed', { does, said })
    }
  }
  switch (verdict.to) {
    case 'do':
      return item('would do', { does })
    case 'ask':
      return item('would ask', { candidates: verdict.candidates, key: verdict.key })
    case 'wait':
      return item('waits')
    case 'leave':
      return item('left alone')
  }
}

async function doAll(
  order: StoredOrder,
  running: OrderRunning,
  items: RunItem[],
  verdicts: readonly { found: FoundResource; verdict: Verdict }[],
  connections: TagConnections,
  keep: (items: RunItem[]) => Promise<void>,
  today: Day,
): Promise<void> {
  const { services, signal, about, progress } = running
  const { db } = services.database
  const note = (item: RunItem, { state, said }: Outcome) => Object.assign(item, { state, said })
  const notices = new Map<string, RunItem[]>()
  const every = Math.max(KEPT_EVERY, Math.ceil(items.length / MOST_KEPT))
  /** Notes what speaks against it at this moment, and whether anything does. */
  const isLeft = async (item: RunItem) => {
    const why = await whyNotNow(order, running, item.found.resourceId, today)
    if (why !== null) note(item, { state: 'left alone', said: why })
    return why !== null
  }
  let done = 0
  for (const [at, item] of items.entries()) {
    const { verdict } = verdicts[at]!
    if (item.state !== 'not begun' || verdict.to !== 'do') continue
    stopIfWanted(running)
    const { deed } = verdict
    const { resourceId, name, provider } = item.found
    if (deed.deed === 'notify') {
      notices.set(deed.person, [...(notices.get(deed.person) ?? []), item])
      continue
    }
    if (await isLeft(item)) continue
    const outcome =
      deed.deed === 'tag'
        ? await tagResource(
            db,
            connections,
            { order: order.id, resourceId, name, provider, key: deed.key, value: deed.value },
            orderAsker(order.definition.name).id,
            about,
            signal,
          )
        : await actOnSaving(workFor(services, orderAsker(order.definition.name)), services, deed.saving, about, signal)
    note(item, outcome)
    if (++done % every === 0) {
      progress({ done, of: items.length, unit: 'resources', words: summary(items) })
      await keep(items)
    }
  }
  const { does } = order.definition
  const way = does.deed === 'notify' ? does.by : 'mail'
  for (const [person, all] of notices) {
    stopIfWanted(running)
    const own: RunItem[] = []
    for (const item of all) if (!(await isLeft(item))) own.push(item)
    const notice = { order, person, found: own.map(({ found }) => found), today }
    const outcomes = await writeNotice(db, notice, way, id => services.people.nameOf(id), about)
    for (const item of own) note(item, outcomes.get(item.found.resourceId)!)
    done += own.length
    if (done >= every) await keep(items)
    done %= every
  }
}

/** Why an order does no more to a resource as it stands at this moment; null where it does. */
async function whyNotNow(order: StoredOrder, { services, cause }: OrderRunning, resourceId: string, today: Day): Promise<string | null> {
  const { isSame, isOn, exception } = await orderNow(services.database.db, order, resourceId)
  if (!isSame) return 'the order was changed or deleted meanwhile'
  if (cause !== 'person' && !isOn) return 'the order was turned off meanwhile'
  return exception && holds(exception, today) ? exceptionWords(exception) : null
}

/** How many are in each state, in words. */
export function summary(items: readonly Pick<RunItem, 'state'>[]): string {
  if (!items.length) return 'Nothing was found.'
  const counts = new Map<ItemState, number>()
  for (const { state } of items) counts.set(state, (counts.get(state) ?? 0) + 1)
  return `${manyOf(items.length, 'thing')} found: ${[...counts].map(([state, n]) => `${n} ${state}`).join(', ')}.`
}
