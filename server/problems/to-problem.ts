import { ZodError } from 'zod'
import { saidOf } from './fault'
import { Problem } from './problem'

/** What went wrong, as it is said to whoever asked. @param what what failed, for the log. */
export function toProblem(error: unknown, what: string): Problem {
  if (error instanceof Problem) return error
  if (error instanceof ZodError) return invalid(error)
  const said = saidOf(error, what)
  return new Problem('fault', 'fault', 'Something went wrong in Rain Barrel', `The request was not carried out: ${said}.`)
}

function invalid(error: ZodError): Problem {
  const errors = error.issues.map(issue => ({ field: issue.path.join('.'), reason: issue.message }))
  return new Problem(
    'invalid',
    'invalid',
    'The request does not fit',
    errors.map(({ field, reason }) => (field ? `${field}: ${reason}` : reason)).join('; '),
    errors,
  )
}
