import { readFileSync } from 'node:fs'
import { ConnectorFailed } from './connector'

/**
 * The secret that a connection refers to, read each time it is needed: it may have been renewed, and it is kept nowhere.
 * @returns null where a connection has none. @throws ConnectorFailed when it is not there.
 */
export function secretOf(reference: string | null): string | null {
  if (reference === null) return null
  if (reference.startsWith('env:')) {
    const secret = process.env[reference.slice(4)]
    if (!secret) throw new ConnectorFailed(`The environment has no secret ${reference.slice(4)}: set it and start Rain Barrel again`, true)
    return secret
  }
  try {
    return readFileSync(reference.slice('file:'.length), 'utf8').trim()
  } catch (error) {
    throw new ConnectorFailed(
      `The secret's file ${reference.slice('file:'.length)} cannot be read (${(error as NodeJS.ErrnoException).code})`,
      true,
    )
  }
}
