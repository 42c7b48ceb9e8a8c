import { setResponseHeader, setResponseStatus, type H3Event } from 'h3'
import { toProblem } from './to-problem'

/** Answers a request with what went wrong, as RFC 9457 problem details. */
export function sendProblem(event: H3Event, error: unknown) {
  const problem = toProblem(error, `${event.method} ${event.path}`)
  setResponseStatus(event, problem.status)
  setResponseHeader(event, 'content-type', 'application/problem+json')
  return problem.details()
}
