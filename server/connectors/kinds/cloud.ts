import { z } from 'zod'
import { deeds, type Deed } from '../../../core/opportunity/deeds'
import type { Instruction } from '../../../core/opportunity/instruction'
import { namedRecord } from '../../../core/text/named-record'
import { rateCardSchema } from '../../../core/ratecard/rate-card'
import { ConnectorFailed, type ConnectorKind } from '../connector'
import { httpCaller } from '../http'

const resourceList = z.object({
  resources: z.array(
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
const metricList = z.object({ metrics: z.array(z.object({ metric: z.string(), what: z.string(), unit: z.string() })) })
/** What 32 bits hold. */
const LARGEST_MEASURED = 3.4e38
const readingList = z.object({
  readings: z.array(z.object({ at: z.string(), value: z.number().min(-LARGEST_MEASURED).max(LARGEST_MEASURED) })),
})
const value = z.number().min(-LARGEST_MEASURED).max(LARGEST_MEASURED).nullable()
const dayList = z.object({ resources: z.array(z.object({ id: z.string(), hours: z.array(value).length(24) })) })
const condition = z.object({
  type: z.string().nullable().default(null),
  name: z.string().nullable().default(null),
  region: z.string().nullable().default(null),
  account: z.string().nullable().default(null),
  tags: namedRecord(z.string()).default({}),
  status: z.string(),
  settings: namedRecord(z.string()).default({}),
  locks: z.array(z.object({ against: z.enum(['changes', 'deletion']), why: z.string(), by: z.string(), since: z.string() })),
  plan: z.array(
    z.object({
      does: z.enum(['stop', 'start']),
      when: z.string(),
      last: z.object({ at: z.string(), outcome: z.enum(['done', 'refused', 'nothing to do']), why: z.string().nullable() }).nullable(),
    }),
  ),
})
const eventList = z.object({
  events: z.array(
    z.object({ id: z.string(), at: z.string(), resourceId: z.string(), what: z.string(), by: z.string(), raw: z.string().nullish() }),
  ),
})
const deed = z.object({ at: z.string() })
const actionOutcome = z.discriminatedUnion('outcome', [
  z.object({ outcome: z.literal('done'), at: z.string() }),
  z.object({ outcome: z.literal('refused'), why: z.string() }),
  z.object({ outcome: z.literal('not received') }),
])
const clockReply = z.object({ now: z.string(), provider: z.string().optional() })
const deedList = z.object({ actions: z.array(z.string()) })
/** What is asked for with a change of a setting. */
function changed(instruction: Exclude<Instruction, { deed: 'delete' | 'snapshot and delete' }>) {
  switch (instruction.deed) {
    case 'tag':
      return { tag: { key: instruction.key, value: instruction.value } }
    case 'schedule':
      return { stopped: instruction.asleep }
    case 'change class':
      return { from: instruction.from, class: instruction.to, iops: instruction.iops, mbps: instruction.mbps }
    case 'change size':
      return { from: instruction.from, size: instruction.to }
  }
}
/** A bill is large and may be made when it is asked for. */
const BILL_TIME_OUT_MS = 120_000
/** So is what there is of all resources at once. */
const LONG = { timeOutMs: 20_000 }
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
      pass: async time => (await json(clockReply, 'POST', `/v1/clock/next-${time}`)).now,
      can: {
        bill: { month: month => call('GET', `/v1/bills/${at(month)}`, {}, { timeOutMs: BILL_TIME_OUT_MS }) },
        'rate card': { newest: () => json(rateCardSchema, 'GET', '/v1/rate-card') },
        inventory: {
          resources: async type =>
            (await json(resourceList, 'GET', `/v1/inventory/${at(type)}`)).resources.map(({ account, ...resource }) => ({
              ...{ ...resource, type, subAccountName: account },
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
          metrics: async type => (await json(metricList, 'GET', `/v1/inventory/${at(type)}/metrics`)).metrics,
          async readings({ type, id }, metric, from, to) {
            const query = `metric=${at(metric)}&from=${at(from)}&to=${at(to)}`
            return (await json(readingList, 'GET', `/v1/inventory/${at(type)}/${at(id)}/readings?${query}`)).readings
          },
          ofDay: async (type, metric, day) =>
            (await json(dayList, 'GET', `/v1/inventory/${at(type)}/measured?metric=${at(metric)}&day=${at(day)}`, {}, LONG)).resources,
        },
        events: { since: async day => (await json(eventList, 'GET', `/v1/events?since=${at(day)}`, {}, LONG)).events },
        actions: {
          async of(type) {
            const { actions } = await json(deedList, 'GET', `/v1/inventory/${at(type)}/actions`).catch((error: unknown) => {
              // one that does not know the question does nothing to this type
              if (error instanceof ConnectorFailed && error.status === 404) return { actions: new Array<string>() }
              throw error
            })
            return actions.filter((one): one is Deed => Object.hasOwn(deeds, one))
          },
          carryOut(instruction, id, requestKey) {
            const place = `/v1/inventory/${at(instruction.type)}/${at(id)}`
            const headers = { 'request-key': requestKey }
            switch (instruction.deed) {
              case 'delete':
                return json(deed, 'DELETE', place, headers)
              case 'snapshot and delete':
                return json(deed, 'DELETE', `${place}?after=snapshot`, headers)
              default:
                return json(deed, 'PUT', place, headers, { body: changed(instruction) })
            }
          },
          outcomeOf: requestKey => json(actionOutcome, 'GET', `/v1/requests/${at(requestKey)}`),
        },
      },
    }
  },
}
