import { setResponseHeader } from 'h3'
import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.savings.openList, ({ event, savings, path }) => {
  setResponseHeader(event, 'cache-control', 'no-store')
  setResponseHeader(event, 'referrer-policy', 'no-referrer')
  return savings.openList(path.secret)
})
