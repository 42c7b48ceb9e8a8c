import { setResponseHeader } from 'h3'
import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.savings.answerList, ({ event, savings, path, body }) => {
  setResponseHeader(event, 'cache-control', 'no-store')
  setResponseHeader(event, 'referrer-policy', 'no-referrer')
  return savings.answerList(path.secret, body)
})
