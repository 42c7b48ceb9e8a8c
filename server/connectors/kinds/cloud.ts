import { z } from 'zod'
import { namedRecord } from '../../../core/text/named-record'
import { rateCardSchema } from '../../../core/ratecard/rate-card'
import { ConnectorFailed, type ConnectorKind } from '../connector'
import { httpCaller } from '../http'

const gatewayList = z.object({
  gateways: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      region: z.string(),
      account: z.string(),
      createdAt: z.string(),
      tags: namedRecord(z.string()),
    }),
  ),
})
const readingList = z.object({ readings: z.array(z.object({ hour: z.string(), gb: z.number() })) })
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
const eventList = z.object({ events: z.array(z.object({ at: z.string(), resourceId: z.string(), what: z.string(), by: z.string() })) })
const deletion = z.object({ id: z.string(), deletedAt: z.string() })
const actionOutcome = z.discriminatedUnion('outcome', [
  z.object({ outcome: z.literal('done'), at: z.string() }),
  z.object({ outcome: z.literal('refused'), why: z.string() }),
  z.object({ outcome: z.literal('not received') }),
])
const clockReply = z.object({ now: z.string(), provider: z.string().optional() })
/** A bill is large and may be made when it is asked for. */
const BILL_TIME_OUT_MS = 120_000
const at = encodeURIComponent

/** A cloud that speaks the interface of `docs/connections.md`. */
export const cloud: ConnectorKind = {
  kind: 'cloud',
  label: 'A cloud',
  help: 'The address of its control service, such as https://control.example.org; it is asked under /v1.',
  can: ['bill', 'rate card', 'inventory', 'measurements', 'events', 'actions'],
  async whose({ name, address, secret }) {
    const { provider } = await httpCaller(name, address, secret).json(clockReply, 'GET', '/v1/clock')
    if (!provider) throw new ConnectorFailed(`${name} does not say whose service it is: write the provider as its charges name it`, true)
    return provider
  },
  connect({ name, provider, address, secret }) {
    const { call, json } = httpCaller(provider, address, secret)
    return {
      name,
      provider,
      now: async () => (await json(clockReply, 'GET', '/v1/clock')).now,
      nextDay: async () => (await json(clockReply, 'POST', '/v1/clock/next-day')).now,
      can: {
        bill: { month: month => call('GET', `/v1/bills/${at(month)}`, {}, BILL_TIME_OUT_MS) },
        'rate card': { newest: () => json(rateCardSchema, 'GET', '/v1/rate-card') },
        inventory: {
          gateways: async () =>
            (await json(gatewayList, 'GET', '/v1/gateways')).gateways.map(({ account, ...gateway }) => ({
              ...gateway,
              subAccountName: account,
            })),
          async condition(id) {
            try {
              return await json(condition, 'GET', `/v1/resources/${at(id)}`)
            } catch (error) {
              if (error instanceof ConnectorFailed && error.status === 404) return null
              throw error
            }
          },
        },
        measurements: {
          readings: async (id, from, to) =>
            (await json(readingList, 'GET', `/v1/gateways/${at(id)}/readings?from=${at(from)}&to=${at(to)}`)).readings,
        },
        events: { since: async day => (await json(eventList, 'GET', `/v1/events?since=${at(day)}`)).events },
        actions: {
          deleteGateway: (id, requestKey) => json(deletion, 'DELETE', `/v1/gateways/${at(id)}`, { 'request-key': requestKey }),
          outcomeOf: requestKey => json(actionOutcome, 'GET', `/v1/requests/${at(requestKey)}`),
        },
      },
    }
  },
}
