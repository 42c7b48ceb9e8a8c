import { getRequestHeader, type H3Event } from 'h3'
import { Problem } from './problem'

/** The header in which whoever maintains a data folder shows that they can read it. */
export const MAINTAINER = 'x-rain-barrel-token'

/** @throws Problem for anyone who cannot read the data folder: what they would get is everything that is kept. */
export function mustMaintain(event: H3Event, token: string): void {
  if (getRequestHeader(event, MAINTAINER) !== token)
    throw new Problem(
      403,
      'not-maintainer',
      'Only whoever maintains the data folder may do this',
      'Use «npm run backup» or «npm run check» on the machine with the data folder.',
    )
}
