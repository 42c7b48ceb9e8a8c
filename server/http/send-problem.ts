import { setResponseHeader, setResponseStatus, type H3Event } from 'h3'
import { problemDetails } from './problem-details'
import { toProblem } from '../problems/to-problem'

/** Whether whoever asked has left before all of the request had come: nobody reads an answer, and nothing went wrong here. */
const hasLeft = ({ node: { req } }: H3Event): boolean => req.destroyed && !req.complete

/** Answers a request with what went wrong, as RFC 9457 problem details. */
export function sendProblem(event: H3Event, error: unknown) {
  if (hasLeft(event)) return null
  const problem = toProblem(error, `${event.method} ${event.path}`)
  const details = problemDetails(problem)
  setResponseStatus(event, details.status)
  setResponseHeader(event, 'content-type', 'application/problem+json')
  return details
}
