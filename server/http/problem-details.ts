import type { ProblemDetails } from '../../shared/contracts/common'
import type { Problem, ProblemKind } from '../problems/problem'

const statuses: Record<ProblemKind, number> = {
  broken: 400,
  forbidden: 403,
  'not found': 404,
  'wrong method': 405,
  conflict: 409,
  'too large': 413,
  invalid: 422,
  fault: 500,
  outside: 502,
  'no room': 507,
}

/** A problem as RFC 9457 has it. */
export const problemDetails = ({ kind, code, title, message, errors }: Problem): ProblemDetails => ({
  type: `urn:rain-barrel:problem:${code}`,
  title,
  status: statuses[kind],
  detail: message,
  code,
  ...(errors && { errors }),
})
