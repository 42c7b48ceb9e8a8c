import { z } from 'zod'
import { rateCardSchema } from '../../core/ratecard/rate-card'

/** A call to an outside service that did not succeed. `sure` tells whether the other side certainly did nothing. */
export class ConnectorFailed extends Error {
  /** @param status what the other side answered with, where it did. */
  constructor(
    message: string,
    readonly sure: boolean,
    readonly status: number | null = null,
  ) {
    super(message)
  }
}

const gatewayList = z.object({
  gateways: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      region: z.string(),
      account: z.string(),
      createdAt: z.string(),
      tags: z.record(z.string(), z.string()),
    }),
  ),
})
const readingList = z.object({ readings: z.array(z.object({ hour: z.string(), gb: z.number() })) })
/** How a resource is now: its locks with who set them and why, what is planned for it and how that went the last time. */
const condition = z.object({
  status: z.string(),
  locks: z.array(z.object({ against: z.enum(['changes', 'deletion']), why: z.string(), by: z.string(), since: z.string() })),
  plan: z.array(
    z.object({
      does: z.enum(['stop', 'start']),
      when: z.string(),
      last: z.object({ at: z.string(), outcome: z.enum(['done', 'refused', 'nothing to do']), why: z.string().nullable() }).nullable(),
    }),
  ),
})
const deletion = z.object({ id: z.string(), deletedAt: z.string() })
const clockReply = z.object({ now: z.string() })
const TIME_OUT_MS = 4000
/** A bill is large and may be made when it is asked for. */
const BILL_TIME_OUT_MS = 120_000

/** What the application asks of a cloud, capability by capability. */
export type CloudConnector = ReturnType<typeof cloudConnector>

/** Speaks to a cloud over HTTP; the only way out of the application. */
export function cloudConnector(provider: string, base: string) {
  /** One call with its whole answer. @throws ConnectorFailed when it is refused, does not come, or does not come whole. */
  async function call(method: string, path: string, headers: Record<string, string> = {}, timeOutMs = TIME_OUT_MS): Promise<Uint8Array> {
    let response: Response
    let bytes: Uint8Array
    try {
      response = await fetch(`${base}/v1/${path}`, { method, headers, signal: AbortSignal.timeout(timeOutMs) })
      bytes = new Uint8Array(await response.arrayBuffer())
    } catch (error) {
      // a connection that was refused did nothing; one that broke or grew silent may have
      const refused = ((error as Error).cause as NodeJS.ErrnoException | undefined)?.code === 'ECONNREFUSED'
      throw new ConnectorFailed(
        refused
          ? `${provider} could not be reached at ${base}`
          : `${provider} did not answer within ${timeOutMs / 1000} seconds, or not whole`,
        refused,
      )
    }
    if (response.ok) return bytes
    const said = z.object({ error: z.string() }).safeParse(readJson(bytes))
    throw new ConnectorFailed(
      `${provider} refused: ${said.success ? said.data.error : `status ${response.status}`}`,
      response.status < 500 || response.status === 503,
      response.status,
    )
  }
  async function json<S extends z.ZodType>(
    contract: S,
    method: string,
    path: string,
    headers?: Record<string, string>,
  ): Promise<z.infer<S>> {
    const read = contract.safeParse(readJson(await call(method, path, headers)))
    if (!read.success) throw new ConnectorFailed(`${provider} answered something that cannot be read`, false)
    return read.data
  }
  const at = encodeURIComponent
  return {
    provider,
    clock: async () => (await json(clockReply, 'GET', 'clock')).now,
    nextDay: async () => (await json(clockReply, 'POST', 'clock/next-day')).now,
    /** How a resource is; null for one that the cloud does not have. */
    resource: async (id: string) => {
      try {
        return await json(condition, 'GET', `resources/${at(id)}`)
      } catch (error) {
        if (error instanceof ConnectorFailed && error.status === 404) return null
        throw error
      }
    },
    gateways: async () =>
      (await json(gatewayList, 'GET', 'gateways')).gateways.map(({ account, ...gateway }) => ({ ...gateway, subAccountName: account })),
    readings: async (id: string, from: string, to: string) =>
      (await json(readingList, 'GET', `gateways/${at(id)}/readings?from=${from}&to=${to}`)).readings,
    /** @param requestKey the same for every try of one approved action: the cloud acts on it once. */
    deleteGateway: (id: string, requestKey: string) => json(deletion, 'DELETE', `gateways/${at(id)}`, { 'request-key': requestKey }),
    /** The newest rate card that the cloud has published. */
    rateCard: () => json(rateCardSchema, 'GET', 'rate-card'),
    bill: (month: string) => call('GET', `bills/${month}`, {}, BILL_TIME_OUT_MS),
  }
}

function readJson(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes))
  } catch {
    return null
  }
}
