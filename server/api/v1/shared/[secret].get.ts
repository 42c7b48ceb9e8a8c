import { setResponseHeader } from 'h3'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { openLink } from '../../../stores/links'

/** What a link shows: for anyone who has it. */
export default route(operations.estimates.openLink, ({ event, database, path }) => {
  setResponseHeader(event, 'cache-control', 'no-store')
  setResponseHeader(event, 'referrer-policy', 'no-referrer')
  return openLink(database.db, path.secret, new Date().toISOString().slice(0, 10))
})
