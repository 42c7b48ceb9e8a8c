import { defineEventHandler, getCookie, getQuery, getRouterParam, setResponseHeader, setResponseStatus, type H3Event } from 'h3'
import { ZodError, type z } from 'zod'
import { services, type Services } from '../services'
import { saidOf } from './fault'
import { notFound, Problem } from './problem'
import { hasBody, isKeepable, readJson, usualBody } from './read-json'

/** What every route gets: the event, the running services and who asks. */
export type RouteContext = Services & { event: H3Event; who: string }

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

/** The JSON body, checked. @param limits how large it may be; more where files come as JSON. */
export async function body<S extends z.ZodType>(event: H3Event, schema: S, limits = usualBody): Promise<z.infer<S>> {
  return schema.parse(await readJson(event, limits))
}

/** The JSON body where there is one, else what the schema takes for none. */
export async function optionalBody<S extends z.ZodType>(event: H3Event, schema: S): Promise<z.infer<S>> {
  return hasBody(event) ? body(event, schema) : schema.parse({})
}

export function query<S extends z.ZodType>(event: H3Event, schema: S): z.infer<S> {
  const asked = getQuery(event)
  for (const [field, value] of Object.entries(asked)) {
    if ([value].flat().every(one => typeof one !== 'string' || isKeepable(one))) continue
    const reason = 'it may not have the character NUL in it'
    throw new Problem(422, 'invalid', 'The request does not fit', `${field}: ${reason}`, [{ field, reason }])
  }
  return schema.parse(asked)
}

/** A part of the path, as text. @throws Problem when it is no text: there is nothing of that name. */
export function parameter(event: H3Event, name: string): string {
  const text = decoded(getRouterParam(event, name) ?? '')
  if (text === null) throw notFound('thing', `A part of the address, its ${name}, is no text: write it in UTF-8, percent-encoded.`)
  return text
}

/** The largest id that the database gives. */
const LARGEST_ID = 2 ** 31 - 1

/** A part of the path that is the number of something. @param what what is looked for, such as `job`. @throws Problem when it is none. */
export function numberedParameter(event: H3Event, name: string, what: string): number {
  const text = parameter(event, name)
  const id = /^\d{1,10}$/.test(text) ? Number(text) : NaN
  if (!(id <= LARGEST_ID)) throw notFound(what, `«${text}» is the number of none.`)
  return id
}

function decoded(text: string): string | null {
  try {
    const read = decodeURIComponent(text)
    return isKeepable(read) ? read : null
  } catch {
    return null
  }
}
