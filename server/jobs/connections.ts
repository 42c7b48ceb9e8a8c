import type { ConnectionInput, ConnectionTested, ConnectionView } from '../../shared/contracts/connections'
import { NOBODY } from '../../shared/contracts/jobs'
import type { Db } from '../db/database'
import { Problem } from '../problems/problem'
import { saidOf } from '../problems/fault'
import { lookForSavings, lookJob } from './kinds/look-for-savings'
import { rateCard, rateCardJob } from './kinds/rate-card'
import { bill, billJob } from './kinds/bill'
import { happened, happenedJob } from './kinds/happened'
import { registerJob, registerJobKind } from './kinds/register'
import { putEventJobs } from './standing-orders'
import { stopWatching } from './watching'
import { findJob, putJob, removeJob } from '../stores/jobs'
import { findConnection, listConnections, removeConnection, saveConnection, type StoredConnection } from '../stores/connections'
import { dropObserved } from '../stores/observed'
import { listWatches } from '../stores/watches'
import { connectorOf } from '../connectors/connect'
import { ConnectorFailed, type ConnectorKind } from '../connectors/connector'
import { connectorKinds } from '../connectors/kinds'

/** Who has made what the environment names. */
const ENVIRONMENT = 'the environment'
const DAY_MS = 86_400_000

/** @throws Problem for a kind there is not. */
function kindOf(kind: string): ConnectorKind {
  const found = connectorKinds.find(known => known.kind === kind)
  if (!found)
    throw new Problem(
      'invalid',
      'no-kind',
      'There is no such kind of connection',
      `«${kind}»: use ${connectorKinds.map(known => known.kind).join(' or ')}.`,
    )
  return found
}

/** Asks a service whose it is and what time it has, without keeping anything. */
export async function testConnection(input: Omit<ConnectionInput, 'provider'>): Promise<ConnectionTested> {
  const kind = kindOf(input.kind)
  try {
    const provider = await kind.whose(input)
    return { provider, now: await kind.connect({ ...input, provider }).now(), problem: null }
  } catch (error) {
    if (error instanceof ConnectorFailed) return { provider: null, now: null, problem: error.message }
    throw error
  }
}

/** Keeps a connection, and the jobs that its capabilities are for. Whose service it is, the service says where a person does not. */
export async function makeConnection(db: Db, input: ConnectionInput, who: string): Promise<void> {
  const kind = kindOf(input.kind)
  let { provider } = input
  try {
    provider ??= await kind.whose(input)
  } catch (error) {
    if (error instanceof ConnectorFailed)
      throw new Problem(
        'invalid',
        'no-answer',
        'The service does not answer',
        `${error.message}. Mend the address, or write the provider to keep the connection all the same.`,
      )
    throw error
  }
  const { name, address, secret } = input
  const tell = who === ENVIRONMENT ? NOBODY : who
  await db.transaction(async tx => {
    await saveConnection(tx, { name, kind: kind.kind, provider, address, secret, who })
    // jobs that are there already keep their rhythm and their history
    const argument = { connection: name }
    const has = async (job: string) => (await findJob(tx, job)) !== undefined
    if (kind.can.includes('bill') && !(await has(billJob(name))))
      await putJob(tx, { kind: bill.kind, name: billJob(name), argument, every: null, due: null, tell })
    if (kind.can.includes('rate card') && !(await has(rateCardJob(name))))
      await putJob(tx, { kind: rateCard.kind, name: rateCardJob(name), argument, every: null, due: null, tell })
    if (kind.can.includes('events') && !(await has(happenedJob(name)))) {
      const due = new Date().toISOString()
      await putJob(tx, { kind: happened.kind, name: happenedJob(name), argument, every: { count: 1, unit: 'day' }, due, tell })
    }
    if (kind.can.includes('register') && !(await has(registerJob(name)))) {
      const due = new Date().toISOString()
      await putJob(tx, { kind: registerJobKind.kind, name: registerJob(name), argument, every: { count: 1, unit: 'day' }, due, tell })
    }
    if (kind.can.includes('inventory') && kind.can.includes('measurements') && !(await has(lookJob(name)))) {
      const due = new Date(Date.now() + DAY_MS).toISOString()
      await putJob(tx, { kind: lookForSavings.kind, name: lookJob(name), argument, every: { count: 1, unit: 'day' }, due, tell })
    }
  })
  await putEventJobs(db)
}

/**
 * Takes a connection out with what runs through it by itself and what it has reported. What it has delivered stays. @returns false when
 * there is none.
 */
export async function dropConnection(db: Db, name: string): Promise<boolean> {
  for (const watch of await listWatches(db)) if (watch.kind === 'connection' && watch.place === name) await stopWatching(db, watch.id)
  for (const job of [billJob(name), rateCardJob(name), lookJob(name), registerJob(name), happenedJob(name)]) await removeJob(db, job)
  await dropObserved(db, name)
  return removeConnection(db, name)
}

/** Everything that is connected, and whether it answers now. */
export async function connectionViews(db: Db): Promise<ConnectionView[]> {
  return Promise.all((await listConnections(db)).map(viewOf))
}

async function viewOf(made: StoredConnection): Promise<ConnectionView> {
  const connector = connectorOf(made)
  const kind = connectorKinds.find(known => known.kind === made.kind)
  const view = { ...made, label: kind?.label ?? made.kind, can: [...(kind?.can ?? [])], played: connector?.pass !== undefined }
  if (!connector) return { ...view, now: null, problem: 'This version knows no such kind of connection.' }
  try {
    return { ...view, now: await connector.now(), problem: null }
  } catch (error) {
    return { ...view, now: null, problem: saidOf(error, `connection ${view.name}`) }
  }
}

/** Makes the connections that the environment names, where they are not there yet. */
export async function connectFromEnvironment(db: Db): Promise<void> {
  for (const { variable, ...made } of named) {
    const address = process.env[variable]
    if (address && !(await findConnection(db, made.name))) await makeConnection(db, { ...made, address, secret: null }, ENVIRONMENT)
  }
}
const named = [
  { variable: 'BRACKWATER_URL', name: 'brackwater', kind: 'cloud', provider: 'Brackwater Cloud' },
  { variable: 'SKERRY_REGISTER_URL', name: 'register', kind: 'register', provider: 'Skerry Lines' },
]
