import { setResponseHeader, setResponseStatus, type H3Event } from 'h3'
import { problemDetails } from './problem-details'
import { toProblem } from '../problems/to-problem'

/** Answers a request with what went wrong, as RFC 9457 problem details. */
export function sendProblem(event: H3Event, error: unknown) {
  const problem = toProblem(error, `${event.method} ${event.path}`)
  const details = problemDetails(problem)
  setResponseStatus(event, details.status)
  setResponseHeader(event, 'content-type', 'application/problem+json')
  return details
}
