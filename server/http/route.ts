import {
  defineEventHandler,
  getCookie,
  getQuery,
  getRouterParam,
  readRawBody,
  setResponseHeader,
  setResponseStatus,
  type H3Event,
} from 'h3'
import { ZodError, type z } from 'zod'
import { services, type Services } from '../services'
import { Problem } from './problem'

/** What every route gets: the event, the running services and who asks. */
export type RouteContext = Services & { event: H3Event; who: string }

const FAULT = 'fault'
export const PERSON_COOKIE = 'rain-barrel-person'

/** Wraps a route: services in, JSON out, failures as problem details. */
export function route<T>(handle: (context: RouteContext) => Promise<T> | T) {
  return defineEventHandler(async event => {
    try {
      return await handle({ ...(await services()), event, who: getCookie(event, PERSON_COOKIE) ?? 'nobody chosen' })
    } catch (error) {
      return sendProblem(event, error)
    }
  })
}

export function sendProblem(event: H3Event, error: unknown) {
  const problem = toProblem(error)
  if (problem.code === FAULT) console.error(error) // what was expected to fail has been told to the person; only faults are for the log
  setResponseStatus(event, problem.status)
  setResponseHeader(event, 'content-type', 'application/problem+json')
  return problem.details()
}

function toProblem(error: unknown): Problem {
  if (error instanceof Problem) return error
  if (error instanceof ZodError) return invalid(error)
  return new Problem(500, FAULT, 'Something went wrong in Rain Barrel', "The request was not carried out. The server's log says more.")
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

/** The JSON body, checked. */
export async function body<S extends z.ZodType>(event: H3Event, schema: S): Promise<z.infer<S>> {
  const text = await readRawBody(event)
  let value: unknown
  try {
    value = JSON.parse(text ?? '')
  } catch {
    throw new Problem(400, 'not-json', 'The body is not JSON', 'Send a JSON document as the body.')
  }
  return schema.parse(value)
}

/** The JSON body where there is one, else what the schema takes for none. */
export async function optionalBody<S extends z.ZodType>(event: H3Event, schema: S): Promise<z.infer<S>> {
  return (await readRawBody(event)) ? body(event, schema) : schema.parse({})
}

export function query<S extends z.ZodType>(event: H3Event, schema: S): z.infer<S> {
  return schema.parse(getQuery(event))
}

export function parameter(event: H3Event, name: string): string {
  return decodeURIComponent(getRouterParam(event, name) ?? '')
}
