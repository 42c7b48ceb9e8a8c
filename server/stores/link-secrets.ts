import { createHash, randomBytes } from 'node:crypto'
import { Problem } from '../problems/problem'

/** A secret that opens something, 256 random bits that are kept nowhere, and the hash that is. */
export function newSecret(): { secret: string; secretHash: string } {
  const secret = randomBytes(32).toString('base64url')
  return { secret, secretHash: hashOf(secret) }
}

export const hashOf = (secret: string): string => createHash('sha256').update(secret).digest('hex')

/** The same for a link that never was, has expired or was taken back, so that nobody learns which. */
export const linkClosed = (): Problem =>
  new Problem(
    'not found',
    'link-closed',
    'This link does not open anything',
    'It may have expired or been withdrawn. Ask whoever sent it for a new one.',
  )
