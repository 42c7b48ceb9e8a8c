import { notFound, Problem } from '../http/problem'
import { connectors } from '.'
import { ConnectorFailed, type CloudConnector } from './cloud-connector'

/** A connection by its name. @throws Problem when nothing is connected under it. */
export function findConnector(name: string): CloudConnector {
  const connector = connectors()[name]
  if (!connector)
    throw notFound('connection', `Nothing is connected under «${name}». Set its address in the environment and start Rain Barrel again.`)
  return connector
}

/** Turns what an outside service did not do into a problem a person can read. */
export async function withConnector<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work()
  } catch (error) {
    if (error instanceof ConnectorFailed)
      throw new Problem(
        502,
        'connector-failed',
        'The cloud did not do it',
        `${error.message}. ${error.sure ? 'Nothing was done' : 'Whether it was done is not known'}; try again.`,
      )
    throw error
  }
}
