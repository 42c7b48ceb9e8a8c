import { z } from 'zod'
import { ConnectorFailed } from './connector'
import { secretOf } from './secret'

const TIME_OUT_MS = 4000
const refusal = z.object({ error: z.string() })

/** Calls to one outside service over HTTP: the way out of the application. */
export function httpCaller(who: string, address: string, secret: string | null) {
  const base = address.replace(/\/+$/, '')
  /** One call with its whole answer. @throws ConnectorFailed when it is refused, does not come, or does not come whole. */
  async function call(
    method: string,
    path: string,
    headers: Record<string, string> = {},
    { timeOutMs = TIME_OUT_MS, body }: { timeOutMs?: number; body?: object } = {},
  ): Promise<Uint8Array> {
    const token = secretOf(secret)
    let response: Response
    let bytes: Uint8Array
    try {
      response = await fetch(`${base}${path}`, {
        method,
        headers: {
          ...headers,
          ...(body && { 'content-type': 'application/json' }),
          ...(token !== null && { authorization: `Bearer ${token}` }),
        },
        ...(body && { body: JSON.stringify(body) }),
        signal: AbortSignal.timeout(timeOutMs),
      })
      bytes = new Uint8Array(await response.arrayBuffer())
    } catch (error) {
      // a connection that was refused did nothing; one that broke or grew silent may have
      const { code = '', message = '' } = ((error as Error).cause as NodeJS.ErrnoException | undefined) ?? {}
      const refused = ['ECONNREFUSED', 'ENOTFOUND', 'EAI_AGAIN', 'ERR_INVALID_URL'].includes(code) || message === 'bad port'
      const why = refused
        ? `${who} could not be reached at ${base}`
        : `${who} did not answer within ${timeOutMs / 1000} seconds, or not whole`
      throw new ConnectorFailed(why, refused)
    }
    if (response.ok) return bytes
    const said = refusal.safeParse(readJson(bytes))
    throw new ConnectorFailed(
      `${who} refused: ${said.success ? said.data.error : `status ${response.status}`}`,
      response.status < 500 || response.status === 503,
      response.status,
      response.status === 429 ? secondsOf(response.headers.get('retry-after')) : null,
    )
  }
  async function json<S extends z.ZodType>(
    contract: S,
    method: string,
    path: string,
    headers?: Record<string, string>,
    more: { timeOutMs?: number; body?: object } = {},
  ): Promise<z.infer<S>> {
    const read = contract.safeParse(readJson(await call(method, path, headers, more)))
    if (!read.success) throw new ConnectorFailed(`${who} answered something that cannot be read`, false)
    return read.data
  }
  return { call, json }
}

/** How long a service that is asked too much wants to be left alone; a second where it does not say. */
const secondsOf = (header: string | null): number => (header !== null && /^\d{1,4}$/.test(header) ? Number(header) : 1)

/** The value of a JSON text in UTF-8; null for what is none. */
export function readJson(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes))
  } catch {
    return null
  }
}
