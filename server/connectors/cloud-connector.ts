import { z } from 'zod'

/** A call to an outside service that did not succeed. `sure` tells whether the other side certainly did nothing. */
export class ConnectorFailed extends Error {
  constructor(message: string, readonly sure: boolean) {
    super(message)
  }
}

const gatewayList = z.object({ gateways: z.array(z.object({ id: z.string(), name: z.string(), region: z.string(), account: z.string(), createdAt: z.string(), tags: z.record(z.string(), z.string()) })) })
const readingList = z.object({ readings: z.array(z.object({ hour: z.string(), gb: z.number() })) })
const deletion = z.object({ id: z.string(), deletedAt: z.string() })
const clockReply = z.object({ now: z.string() })
const TIME_OUT_MS = 4000

/** What the application asks of a cloud, capability by capability. */
export type CloudConnector = ReturnType<typeof cloudConnector>

/** Speaks to a cloud over HTTP; the only way out of the application. */
export function cloudConnector(provider: string, base: string) {
  async function call(method: string, path: string, headers: Record<string, string> = {}): Promise<Response> {
    let response: Response
    try {
      response = await fetch(`${base}/v1/${path}`, { method, headers, signal: AbortSignal.timeout(TIME_OUT_MS) })
    }
    catch (error) {
      const late = (error as Error).name === 'TimeoutError'
      throw new ConnectorFailed(late ? `${provider} did not answer within ${TIME_OUT_MS / 1000} seconds` : `${provider} could not be reached at ${base}`, !late)
    }
    if (response.ok) return response
    const text = await response.text().catch(() => '')
    const said = z.object({ error: z.string() }).safeParse(safeJson(text))
    throw new ConnectorFailed(`${provider} refused: ${said.success ? said.data.error : `status ${response.status}`}`, true)
  }
  async function json<S extends z.ZodType>(contract: S, method: string, path: string, headers?: Record<string, string>): Promise<z.infer<S>> {
    const response = await call(method, path, headers)
    const read = contract.safeParse(safeJson(await response.text()))
    if (!read.success) throw new ConnectorFailed(`${provider} answered something that cannot be read`, false)
    return read.data
  }
  const at = encodeURIComponent
  return {
    provider,
    clock: async () => (await json(clockReply, 'GET', 'clock')).now,
    nextDay: async () => (await json(clockReply, 'POST', 'clock/next-day')).now,
    gateways: async () => (await json(gatewayList, 'GET', 'gateways')).gateways.map(({ account, ...gateway }) => ({ ...gateway, subAccountName: account })),
    readings: async (id: string, from: string, to: string) => (await json(readingList, 'GET', `gateways/${at(id)}/readings?from=${from}&to=${to}`)).readings,
    /** @param requestKey the same for every try of one approved action: the cloud acts on it once. */
    deleteGateway: (id: string, requestKey: string) => json(deletion, 'DELETE', `gateways/${at(id)}`, { 'request-key': requestKey }),
    bill: async (month: string) => new Uint8Array(await (await call('GET', `bills/${month}`)).arrayBuffer()),
  }
}

function safeJson(text: string): unknown {
  try {
    return JSON.parse(text)
  }
  catch {
    return null
  }
}
