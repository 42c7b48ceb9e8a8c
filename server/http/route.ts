import { defineEventHandler, getCookie, getQuery, getRouterParams, setResponseHeader, setResponseStatus, type H3Event } from 'h3'
import { services, type Services } from '../services'
import { JsonBytes } from '../json-bytes'
import type { BodyOf, Operation, PathOf, QueryOf, ReplyOf } from '../operations/operation'
import { enginesFor, type Engines } from '../engines'
import { engineWork } from '../engines/engine-work'
import { notFound, Problem, wholeCompany } from '../problems/problem'
import { usualBody } from '../operations/body-limits'
import { isKeepable } from '../bodies/read-json'
import { hasBody, readBytes } from './read-bytes'
import { sendProblem } from './send-problem'

/** What every route gets: what the server can do for whoever asks, and what was asked, checked. */
export type RouteContext<O extends Operation> = Engines & { event: H3Event; path: PathOf<O>; query: QueryOf<O>; body: BodyOf<O> }

export const PERSON_COOKIE = 'rain-barrel-person'

/** What a route gives back: a value, or the same as it was written where it was made. */
type Given<O extends Operation> = ReplyOf<O> | JsonBytes<ReplyOf<O>>

/**
 * Carries out an operation of the table for whoever asks, where it is for them: what came is checked by its entry before the route sees it,
 * what the route gives back is sent, failures as problem details.
 */
export function route<const O extends Operation>(operation: O, handle: (context: RouteContext<O>) => Promise<Given<O>> | Given<O>) {
  return defineEventHandler(async event => {
    try {
      const running = await services()
      const asker = running.people.asker(getCookie(event, PERSON_COOKIE))
      if (operation.reach === 'company' && asker.bound) throw wholeCompany(operation.says)
      const asked = { path: pathOf(event, operation), query: queryOf(event, operation), body: await bodyOf(event, operation, running) }
      const reply = await handle({ ...enginesFor(engineWork(running, asker)), event, ...asked } as RouteContext<O>)
      if (operation.status) setResponseStatus(event, operation.status)
      if (!(reply instanceof JsonBytes)) return reply
      setResponseHeader(event, 'content-type', 'application/json')
      return typeof reply.bytes === 'string' ? reply.bytes : Buffer.from(reply.bytes.buffer, reply.bytes.byteOffset, reply.bytes.byteLength)
    } catch (error) {
      return sendProblem(event, error)
    }
  })
}

/** The parts of the path. @throws Problem when one is no text, or not what the operation takes: there is nothing of that name. */
function pathOf(event: H3Event, { parts = {} }: Operation): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(getRouterParams(event)).map(([name, raw]) => {
      const text = decoded(raw)
      if (text === null) throw notFound('thing', `A part of the address, its ${name}, is no text: write it in UTF-8, percent-encoded.`)
      return [name, Object.hasOwn(parts, name) ? parts[name]!.parse(text) : text]
    }),
  )
}

function decoded(text: string): string | null {
  try {
    const read = decodeURIComponent(text)
    return isKeepable(read) ? read : null
  } catch {
    return null
  }
}

function queryOf(event: H3Event, { query }: Operation): unknown {
  if (!query) return
  const asked = getQuery(event)
  for (const [field, value] of Object.entries(asked)) {
    if ([value].flat().every(one => typeof one !== 'string' || isKeepable(one))) continue
    const reason = 'it may not have the character NUL in it'
    throw new Problem('invalid', 'invalid', 'The request does not fit', `${field}: ${reason}`, [{ field, reason }])
  }
  return query.parse(asked)
}

async function bodyOf(event: H3Event, operation: Operation, { bodies }: Services): Promise<unknown> {
  const { body, isBodyOptional, limits = usualBody } = operation
  if (!body || body === 'bytes') return
  if (isBodyOptional && !hasBody(event)) return body.parse({})
  return bodies.read(operation, await readBytes(event, limits.bytes))
}
