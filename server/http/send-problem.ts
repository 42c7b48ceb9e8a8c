import { setResponseHeader, setResponseStatus, type H3Event } from 'h3'
import { ZodError } from 'zod'
import { saidOf } from './fault'
import { Problem } from './problem'

/** Answers a request with what went wrong, as RFC 9457 problem details. */
export function sendProblem(event: H3Event, error: unknown) {
  const problem = toProblem(event, error)
  setResponseStatus(event, problem.status)
  setResponseHeader(event, 'content-type', 'application/problem+json')
  return problem.details()
}

function toProblem(event: H3Event, error: unknown): Problem {
  if (error instanceof Problem) return error
  if (error instanceof ZodError) return invalid(error)
  const said = saidOf(error, `${event.method} ${event.path}`)
  return new Problem(500, 'fault', 'Something went wrong in Rain Barrel', `The request was not carried out: ${said}.`)
}

function invalid(error: ZodError): Problem {
  const errors = error.issues.map(issue => ({ field: issue.path.join('.'), reason: issue.message }))
  return new Problem(
    422,
    'invalid',
    'The request does not fit',
    errors.map(({ field, reason }) => (field ? `${field}: ${reason}` : reason)).join('; '),
    errors,
  )
}
