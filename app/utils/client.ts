import type { z } from 'zod'
import { problemDetails, type ProblemDetails } from '../../shared/contracts/common'

/** A request that the server refused or that did not reach it; says what, where and how to mend it. */
export class RequestFailed extends Error {
  constructor(readonly problem: ProblemDetails) {
    super(problem.detail)
  }
}

/** Something that the page itself refuses, said like what the server refuses. */
export const refusal = (title: string, detail: string) => new RequestFailed({ type: '', title, status: 0, code: 'invalid', detail })

const unreachable = (detail: string): ProblemDetails => ({
  type: 'urn:rain-barrel:problem:unreachable',
  title: 'The server did not answer',
  status: 0,
  code: 'unreachable',
  detail,
})

async function reach(path: string, init: RequestInit): Promise<Response> {
  try {
    return await fetch(`/api/v1/${path}`, init)
  } catch (error) {
    if ((error as Error).name === 'AbortError') throw error
    throw new RequestFailed(
      unreachable('Rain Barrel is not running or the connection broke. Start it again, then try once more; nothing you typed is lost.'),
    )
  }
}

async function send(path: string, init: RequestInit): Promise<unknown> {
  const response = await reach(path, init)
  const text = await response.text()
  const value: unknown = text ? JSON.parse(text) : null
  if (response.ok) return value
  throw new RequestFailed(problemDetails.parse(value))
}

/** The one way to the server: every reply is read through its contract. */
export const client = {
  async get<S extends z.ZodType>(path: string, contract: S, signal?: AbortSignal): Promise<z.infer<S>> {
    return contract.parse(await send(path, { signal }))
  },
  async send<S extends z.ZodType>(
    method: 'POST' | 'PUT' | 'DELETE',
    path: string,
    body: unknown,
    contract: S,
    signal?: AbortSignal,
  ): Promise<z.infer<S>> {
    return contract.parse(await send(path, { method, body: JSON.stringify(body), headers: { 'content-type': 'application/json' }, signal }))
  },
  /** A file that the server writes. @returns it with the name the server gives it. */
  async file(path: string, body: unknown): Promise<{ blob: Blob; name: string | null }> {
    const response = await reach(path, { method: 'POST', body: JSON.stringify(body), headers: { 'content-type': 'application/json' } })
    if (!response.ok) throw new RequestFailed(problemDetails.parse(await response.json()))
    return { blob: await response.blob(), name: /filename="([^"]+)"/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? null }
  },
  async upload<S extends z.ZodType>(method: 'POST' | 'PUT', path: string, body: Blob, contract: S): Promise<z.infer<S>> {
    return contract.parse(await send(path, { method, body, headers: { 'content-type': 'application/octet-stream' } }))
  },
}

/** What went wrong, for showing: a problem with title and detail. */
export function problemOf(error: unknown): ProblemDetails {
  if (error instanceof RequestFailed) return error.problem
  return {
    type: 'urn:rain-barrel:problem:page',
    title: 'Something went wrong on this page',
    status: 0,
    code: 'page',
    detail: (error as Error).message,
  }
}
