import { setResponseHeader } from 'h3'
import { parameter, route } from '../../../http/route'
import { openLink } from '../../../stores/links'

/** What a link shows: for anyone who has it. */
export default route(({ event, database }) => {
  setResponseHeader(event, 'cache-control', 'no-store')
  setResponseHeader(event, 'referrer-policy', 'no-referrer')
  return openLink(database.db, parameter(event, 'secret'), new Date().toISOString().slice(0, 10))
})
