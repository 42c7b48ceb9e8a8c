import { setTimeout as wait } from 'node:timers/promises'
import { z } from 'zod'
import { metrics, type MetricName } from '../../../core/measured/metrics'
import type { Deed } from '../../../core/opportunity/deeds'
import type { Instruction } from '../../../core/opportunity/instruction'
import { dayFromNumber, dayNumber, type Day } from '../../../core/time/day'
import { ConnectorFailed, type ActionOutcome, type ConnectorKind, type Metric } from '../connector'
import { httpCaller } from '../http'

const pair = z.tuple([z.string(), z.string()])
const after = z.string().nullable()
const thing = z.object({
  ...{ ref: z.string(), called: z.string(), where: z.string(), within: z.string(), since: z.number() },
  labels: z.array(pair),
})
const clock = z.object({ now: z.number(), company: z.string() })
const things = z.object({ things: z.array(thing), after })
const oneThing = z.object({
  thing: thing
    .extend({
      ...{ kind: z.string(), status: z.string(), settings: z.array(pair) },
      holds: z.array(z.object({ against: z.enum(['change', 'removal']), reason: z.string(), person: z.string(), since: z.number() })),
    })
    .nullable(),
})
const meterList = z.object({ meters: z.array(z.object({ meter: z.string(), unit: z.string() })) })
const points = z.object({ points: z.array(z.tuple([z.number(), z.number()])) })
const rows = z.object({ rows: z.array(z.object({ ref: z.string(), hours: z.array(z.number().nullable()).length(24) })), after })
const happenings = z.object({
  happenings: z.array(
    z.object({ no: z.string(), time: z.number(), ref: z.string(), verb: z.string(), actor: z.string(), record: z.string().nullable() }),
  ),
  after,
})
const verbList = z.object({ verbs: z.array(z.string()) })
const order = z.object({
  no: z.string(),
  state: z.enum(['open', 'finished', 'turned down']),
  at: z.number(),
  reason: z.string().nullable(),
})
type Order = z.infer<typeof order>

/** How such a cloud calls what is measured, in which unit, and by what its values are to be multiplied. */
const meters: readonly { meter: string; unit: string; metric: MetricName; by: number }[] = [
  { meter: 'processor-share', unit: 'share', metric: 'cpu', by: 100 },
  { meter: 'memory-share', unit: 'share', metric: 'memory', by: 100 },
  { meter: 'ops', unit: 'per second', metric: 'operations', by: 1 },
  { meter: 'moved', unit: 'kB per second', metric: 'throughput', by: 0.001 },
  { meter: 'passed', unit: 'MB', metric: 'passed', by: 0.001 },
  { meter: 'holders', unit: 'machines', metric: 'attached', by: 1 },
]
const verbs: Partial<Record<Deed, string>> = {
  delete: 'remove',
  'snapshot and delete': 'copy and remove',
  'change size': 'resize',
  'change class': 'reclass',
  tag: 'label',
}
/** What its events are called here. */
const happened: Readonly<Record<string, string>> = { made: 'created', removed: 'deleted' }

const DAY_SECONDS = 86_400
/** A question may be of all that there is. */
const ASKED_MS = 20_000
const LOOK_EVERY_MS = 150
/** So long an order is watched; after that nobody knows, and it is asked again later. */
const WATCHED_MS = 10_000
/** More parts than any list has. */
const MOST_PARTS = 10_000
const instant = (seconds: number) => new Date(seconds * 1000).toISOString().replace('.000Z', 'Z')
const secondsOf = (day: Day) => dayNumber(day) * DAY_SECONDS

/** What goes with an order. @returns null for what cannot be ordered. */
function orderFor(instruction: Instruction): { verb: string; with: object } | null {
  const verb = verbs[instruction.deed]
  if (!verb) return null
  switch (instruction.deed) {
    case 'delete':
    case 'snapshot and delete':
      return { verb, with: {} }
    case 'tag':
      return { verb, with: { name: instruction.key, value: instruction.value } }
    case 'schedule':
      return null
    default:
      return { verb, with: { from: instruction.from, to: instruction.to } }
  }
}

/** A cloud that everything is asked at one address, and that takes work orders which it finishes later (`docs/connections.md`). */
export const workOrders: ConnectorKind = {
  kind: 'work-orders',
  label: 'A cloud that takes work orders',
  help: 'The address of its desk, such as https://desk.example.org; everything is asked at /ask.',
  can: ['bill', 'inventory', 'measurements', 'events', 'actions'],
  async whose({ name, address, secret }) {
    return (await askAt(name, address, secret).ask('clock', {}, clock)).company
  },
  connect({ name, provider, address, secret }) {
    const { ask, all, call } = askAt(provider, address, secret)
    const outcome = ({ state, at, reason }: Order): ActionOutcome | null =>
      state === 'finished'
        ? { outcome: 'done', at: instant(at) }
        : state === 'open'
          ? null
          : { outcome: 'refused', why: reason ?? 'it does not say why' }
    const lookAt = async (no: string) => (await ask('order', { no }, z.object({ order: order.nullable() }))).order
    return {
      name,
      provider,
      now: async () => instant((await ask('clock', {}, clock)).now),
      can: {
        bill: { month: month => call('GET', `/statement/${encodeURIComponent(month)}`, {}, { timeOutMs: 120_000 }) },
        inventory: {
          resources: async type =>
            (await all('things', { kind: type }, things, ({ things: part }) => part)).map(one => ({
              ...{ id: one.ref, name: one.called, type, region: one.where, subAccountName: one.within, createdAt: instant(one.since) },
              tags: Object.fromEntries(one.labels),
            })),
          async condition(id) {
            const { thing: one } = await ask('thing', { ref: id }, oneThing)
            if (!one) return null
            return {
              ...{ type: one.kind, name: one.called, region: one.where, account: one.within, tags: Object.fromEntries(one.labels) },
              ...{ status: one.status, settings: Object.fromEntries(one.settings), plan: [] },
              locks: one.holds.map(({ against, reason, person, since }) => ({
                ...{ against: against === 'removal' ? ('deletion' as const) : ('changes' as const), why: reason, by: person },
                since: dayFromNumber(Math.floor(since / DAY_SECONDS)),
              })),
            }
          },
        },
        measurements: {
          metrics: async type =>
            (await ask('meters', { kind: type }, meterList)).meters.flatMap(({ meter, unit }): Metric[] => {
              const known = meters.find(one => one.meter === meter && one.unit === unit)
              return known ? [{ metric: known.metric, what: metrics[known.metric].what, unit: metrics[known.metric].unit }] : []
            }),
          async readings({ id }, metric, from, to) {
            const own = meterOf(metric)
            const told = await ask('points', { ref: id, meter: own.meter, from: secondsOf(from), to: secondsOf(to) }, points)
            return told.points.map(([time, value]) => ({ at: instant(time), value: value * own.by }))
          },
          async ofDay(type, metric, day) {
            const own = meterOf(metric)
            const told = await all('rows', { kind: type, meter: own.meter, from: secondsOf(day) }, rows, ({ rows: part }) => part)
            return told.map(({ ref, hours }) => ({ id: ref, hours: hours.map(value => (value === null ? null : value * own.by)) }))
          },
        },
        events: {
          since: async day =>
            (await all('happenings', { from: secondsOf(day) }, happenings, part => part.happenings)).map(one => ({
              ...{ id: one.no, at: instant(one.time), resourceId: one.ref, by: one.actor, raw: one.record },
              what: Object.hasOwn(happened, one.verb) ? happened[one.verb]! : one.verb,
            })),
        },
        actions: {
          async of(type) {
            const told = (await ask('verbs', { kind: type }, verbList)).verbs
            return (Object.keys(verbs) as Deed[]).filter(one => told.includes(verbs[one]!))
          },
          async carryOut(instruction, id, requestKey) {
            const asked = orderFor(instruction)
            if (!asked) throw new ConnectorFailed(`${provider} takes no order to ${instruction.deed}`, true)
            let placed: Order | null = (await ask('place', { no: requestKey, ref: id, ...asked }, z.object({ order }))).order
            for (const began = Date.now(); placed && !outcome(placed) && Date.now() - began < WATCHED_MS;) {
              await wait(LOOK_EVERY_MS)
              placed = await lookAt(requestKey).catch((error: unknown) => {
                // it was placed: whatever becomes of the question, nobody may take it for refused
                throw new ConnectorFailed(error instanceof Error ? error.message : String(error), false)
              })
            }
            const ended = placed && outcome(placed)
            if (!ended) throw new ConnectorFailed(`${provider} has the order, and has not worked on it yet`, false)
            if (ended.outcome === 'refused') throw new ConnectorFailed(`${provider} refused: ${ended.why}`, true)
            return { at: (ended as { at: string }).at }
          },
          async outcomeOf(requestKey) {
            const placed = await lookAt(requestKey)
            if (!placed) return { outcome: 'not received' }
            const ended = outcome(placed)
            if (!ended) throw new ConnectorFailed('the order is there and not worked on yet', false)
            return ended
          },
        },
      },
    }
  },
}

function meterOf(metric: string) {
  const own = meters.find(one => one.metric === metric)
  if (!own) throw new ConnectorFailed(`«${metric}» is not measured there`, true)
  return own
}

/** Everything is asked the same way; what comes in parts is asked for until there is no more. */
function askAt(who: string, address: string, secret: string | null) {
  const { call, json } = httpCaller(who, address, secret)
  const ask = async <T>(what: string, more: object, contract: z.ZodType<T>): Promise<T> => {
    const body = { ask: what, ...more }
    return (await json(z.object({ reply: contract }) as z.ZodType<{ reply: T }>, 'POST', '/ask', {}, { body, timeOutMs: ASKED_MS })).reply
  }
  async function all<P extends { after: string | null }, T>(
    what: string,
    more: object,
    contract: z.ZodType<P>,
    partOf: (reply: P) => readonly T[],
  ): Promise<T[]> {
    const found: T[] = []
    let cursor: string | null = null
    for (let parts = 0; parts < MOST_PARTS; parts++) {
      const reply: P = await ask(what, { ...more, after: cursor }, contract)
      found.push(...partOf(reply))
      if (reply.after === null) return found
      cursor = reply.after
    }
    throw new ConnectorFailed(`${who} does not come to an end with its ${what}`, true)
  }
  return { ask, all, call }
}
