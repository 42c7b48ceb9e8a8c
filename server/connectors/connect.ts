import type { Db } from '../db/database'
import { notFound, Problem } from '../problems/problem'
import { findConnection, listConnections, type StoredConnection } from '../stores/connections'
import { ConnectorFailed, type Capabilities, type Capability, type Connector } from './connector'
import { connectorKinds } from './kinds'

/** What is reached through a connection; undefined for a kind that this version does not know. */
export const connectorOf = (made: StoredConnection): Connector | undefined =>
  connectorKinds.find(({ kind }) => kind === made.kind)?.connect(made)

/** Everything that is connected. */
export async function connectors(db: Db): Promise<Connector[]> {
  return (await listConnections(db)).flatMap(made => connectorOf(made) ?? [])
}

/** What is reached through a connection of that name. @throws Problem when there is none. */
export async function findConnector(db: Db, name: string): Promise<Connector> {
  const made = await findConnection(db, name)
  const connector = made && connectorOf(made)
  if (!connector) throw notFound('connection', `Nothing is connected under «${name}». Make the connection under Sources, Connections.`)
  return connector
}

/** What a connection can do. @throws Problem when it cannot. */
export function capabilityOf<C extends Capability>(connector: Connector, capability: C): Capabilities[C] {
  const found = connector.can[capability]
  if (!found) throw new Problem('conflict', 'not-capable', 'The connection cannot do that', `«${connector.name}» has no ${capability}.`)
  return found
}

/** The first connection that can do all of that, of a provider where one is named. @throws Problem when there is none. */
export async function connectorThatCan(db: Db, wanted: readonly Capability[], provider?: string): Promise<Connector> {
  const found = (await connectors(db)).find(
    ({ can, provider: whose }) => wanted.every(one => can[one]) && (provider === undefined || whose === provider),
  )
  if (!found)
    throw notFound(
      'connection',
      `Nothing is connected that has ${wanted.join(' and ')}${provider ? ` of ${provider}` : ''}. Make the connection under Sources, Connections.`,
    )
  return found
}

/** Turns what an outside service did not do into a problem a person can read. */
export async function withConnector<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work()
  } catch (error) {
    if (error instanceof ConnectorFailed)
      throw new Problem(
        'outside',
        'connector-failed',
        'The cloud did not do it',
        `${error.message}. ${error.sure ? 'Nothing was done' : 'Whether it was done is not known'}; try again.`,
      )
    throw error
  }
}
