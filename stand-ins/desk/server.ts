import { createServer, type IncomingMessage, type Server } from 'node:http'
import { gzipSync } from 'node:zlib'
import { z } from 'zod'
import { demoDeliveries } from '../../demo/deliveries'
import { chargeLine, headerLine } from '../../demo/focus-file'
import { larkfieldInventory, runsOn, type CloudResource } from '../../demo/inventory'
import { measuredOfKind, measuredOn } from '../../demo/measured'
import type { MetricName } from '../../core/measured/metrics'
import { addDays, dayFromNumber, dayNumber, type Day } from '../../core/time/day'
import { openDesk, type DeskState, type Order } from './orders'

/** So many things, rows or happenings come at once; the rest is asked for with a cursor. */
const PAGE = 10
const DAY_SECONDS = 86_400

/** How this cloud calls what is measured, in which unit, and how many of its own are one of ours. */
const meters: Partial<Record<MetricName, { meter: string; unit: string; by: number }>> = {
  cpu: { meter: 'processor-share', unit: 'share', by: 0.01 },
  memory: { meter: 'memory-share', unit: 'share', by: 0.01 },
  operations: { meter: 'ops', unit: 'per second', by: 1 },
  throughput: { meter: 'moved', unit: 'kB per second', by: 1000 },
  passed: { meter: 'passed', unit: 'MB', by: 1000 },
  attached: { meter: 'holders', unit: 'machines', by: 1 },
}
const asked = z.discriminatedUnion('ask', [
  z.object({ ask: z.literal('clock') }),
  z.object({ ask: z.literal('things'), kind: z.string(), after: z.string().nullable() }),
  z.object({ ask: z.literal('thing'), ref: z.string() }),
  z.object({ ask: z.literal('meters'), kind: z.string() }),
  z.object({ ask: z.literal('points'), ref: z.string(), meter: z.string(), from: z.number(), to: z.number() }),
  z.object({ ask: z.literal('rows'), kind: z.string(), meter: z.string(), from: z.number(), after: z.string().nullable() }),
  z.object({ ask: z.literal('happenings'), from: z.number(), after: z.string().nullable() }),
  z.object({ ask: z.literal('verbs'), kind: z.string() }),
  z.object({
    ask: z.literal('place'),
    no: z.string().min(1),
    ref: z.string(),
    verb: z.string(),
    with: z.record(z.string(), z.unknown()).default({}),
  }),
  z.object({ ask: z.literal('order'), no: z.string() }),
])
type Asked = z.infer<typeof asked>
type Reply = { status: number; body: object }

const secondsOf = (day: Day) => dayNumber(day) * DAY_SECONDS
const dayOf = (seconds: number): Day => dayFromNumber(Math.floor(seconds / DAY_SECONDS))

/** A part of a list, and where the next begins. */
function page<T>(list: readonly T[], after: string | null): { part: T[]; after: string | null } {
  const from = Number(after ?? 0)
  return { part: list.slice(from, from + PAGE), after: from + PAGE < list.length ? String(from + PAGE) : null }
}

/**
 * A second small cloud, which plays Larkfield and is of another shape than the first: one address that all is asked at, lists that come
 * in parts, seconds instead of days, shares instead of percent, labels as pairs, and work orders under numbers that the caller chooses,
 * which are placed first and finished some polls later.
 */
export function deskServer(told: Partial<DeskState> = {}): Server & { state: DeskState } {
  const desk = openDesk(larkfieldInventory(), told)
  const { state } = desk
  const hour = 9
  const now = () => secondsOf(state.day) + hour * 3600
  const there = (kind?: string) =>
    desk.inventory.filter(one => (kind === undefined || one.use.kind === kind) && runsOn(one, state.day) && !state.removed[one.id])
  const meterOf = (name: string) => (Object.keys(meters) as MetricName[]).find(metric => meters[metric]!.meter === name)
  const measuredThere = (resource: CloudResource, metric: MetricName, day: Day): (number | null)[] =>
    metric === 'attached' && state.detached.includes(resource.id)
      ? Array<number>(24).fill(0)
      : (measuredOn(resource, metric, day) ?? Array<null>(24).fill(null))
  const hoursOn = (resource: CloudResource, metric: MetricName, day: Day) =>
    measuredThere(resource, metric, day).map((value, at) =>
      value === null || day > state.day || (day === state.day && at >= hour) ? null : value * meters[metric]!.by,
    )
  const metersOf = (kind: string) =>
    (measuredOfKind[kind as CloudResource['use']['kind']] ?? []).flatMap(metric => {
      const own = meters[metric]
      return own ? [{ meter: own.meter, unit: own.unit }] : []
    })
  const describe = (one: CloudResource) => ({
    ...{ ref: one.id, called: one.name, where: one.region, within: one.account, since: secondsOf(one.since) },
    labels: Object.entries({ ...one.tags, ...state.labels[one.id] }),
  })
  const order = ({ no, state: of, at, reason }: Order) => ({ no, state: of, at, reason })

  function answer(question: Asked): Reply {
    const ok = (reply: object): Reply => ({ status: 200, body: { reply } })
    const none = (what: string): Reply => ({ status: 404, body: { error: `there is no such ${what}` } })
    switch (question.ask) {
      case 'clock':
        return ok({ now: now(), company: 'Larkfield Compute' })
      case 'things': {
        const { part, after } = page(there(question.kind), question.after)
        return ok({ things: part.map(describe), after })
      }
      case 'thing': {
        const found = there().find(({ id }) => id === question.ref)
        return ok({ thing: found ? { ...describe(found), kind: found.use.kind, ...desk.conditionOf(found) } : null })
      }
      case 'meters':
        return ok({ meters: metersOf(question.kind) })
      case 'points': {
        const [found, metric] = [there().find(({ id }) => id === question.ref), meterOf(question.meter)]
        if (!found || !metric) return none('meter')
        const points: [number, number][] = []
        for (let day = dayOf(question.from); secondsOf(day) < question.to; day = addDays(day, 1))
          hoursOn(found, metric, day).forEach((value, at) => {
            if (value !== null) points.push([secondsOf(day) + at * 3600, value])
          })
        return ok({ points })
      }
      case 'rows': {
        const metric = meterOf(question.meter)
        if (!metric) return none('meter')
        const { part, after } = page(there(question.kind), question.after)
        return ok({ rows: part.map(one => ({ ref: one.id, hours: hoursOn(one, metric, dayOf(question.from)) })), after })
      }
      case 'happenings': {
        const all = desk.happenings().filter(({ time }) => time >= question.from)
        const { part, after } = page(all, question.after)
        return ok({ happenings: part, after })
      }
      case 'verbs':
        return ok({ verbs: desk.verbsOf(question.kind) })
      case 'place':
        return ok({ order: order(desk.place(question, now())) })
      case 'order': {
        const found = desk.look(question.no, now())
        return ok({ order: found && order(found) })
      }
    }
  }

  const bodyOf = async (request: IncomingMessage): Promise<unknown> => {
    const chunks: Buffer[] = []
    for await (const chunk of request) chunks.push(chunk as Buffer)
    return JSON.parse(Buffer.concat(chunks).toString() || '{}')
  }
  const statement = (month: string): Buffer | null => {
    const delivery = demoDeliveries(state.day).find(one => one.file.startsWith('larkfield') && one.month === month)
    if (!delivery) return null
    let text = headerLine
    for (const charge of delivery.charges()) text += chargeLine(charge)
    return gzipSync(text)
  }
  const server = createServer((request, response) => {
    const send = (status: number, body: object | Buffer) => {
      const bytes = Buffer.isBuffer(body) ? body : Buffer.from(JSON.stringify(body))
      response.writeHead(status, { 'content-length': bytes.length, ...(status === 429 && { 'retry-after': '1' }) })
      response.end(bytes)
    }
    const reply = async () => {
      if (request.method === 'GET' && request.url?.startsWith('/statement/')) {
        const bill = statement(request.url.slice('/statement/'.length))
        return bill ? send(200, bill) : send(404, { error: 'there is no such month' })
      }
      const read = asked.safeParse(await bodyOf(request))
      if (request.method !== 'POST' || request.url !== '/ask' || !read.success)
        return send(400, { error: 'nothing that can be asked here' })
      const { status, body } = answer(read.data)
      // the order is placed, the answer is lost
      if (read.data.ask === 'place' && state.loses > 0) {
        state.loses--
        return void request.socket.destroy()
      }
      send(status, body)
    }
    reply().catch((error: Error) => {
      console.error(error)
      if (!response.headersSent) send(500, { error: error.message })
    })
  })
  return Object.assign(server, { state })
}
