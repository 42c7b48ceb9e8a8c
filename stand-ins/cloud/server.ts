import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import { gzipSync } from 'node:zlib'
import { brackwaterDelivery } from '../../demo/deliveries'
import { chargeLine, headerLine } from '../../demo/focus-file'
import { brackwaterInventory, makerOf, runsOn, type CloudResource } from '../../demo/inventory'
import { measuredOfKind, measuredOn } from '../../demo/measured'
import { brackwaterNextCard } from '../../demo/rate-cards'
import { isMetric, metrics, type MetricName } from '../../core/measured/metrics'
import { addDays, addMonths, isDay, monthOf, monthStart, type Day } from '../../core/time/day'
import { daysOf } from '../../core/time/period'
import { actionsOfKind, change, settingsOf, tagsOf } from './changes'
import { created, madeAgainUntil, madeId, madeResources, snapshotsTaken } from './made'
import { conditionOf } from './condition'
import { controlled, controlPage } from './control-page'
import { hourlyReadings, type Gateway } from './readings'
import { runningHours, runsIn } from './running'
import { readState, writeState, type CloudState, type Reply } from './state'

/** How far its clock can be told to go on: to the same day of the next month, or its first where it has none such. */
const NEXT: Readonly<Record<string, (day: Day) => Day>> = {
  'next-day': day => addDays(day, 1),
  'next-week': day => addDays(day, 7),
  'next-month': day => {
    const month = addMonths(monthOf(day), 1)
    const same = `${month}${day.slice(7)}`
    return isDay(same) ? same : monthStart(addMonths(month, 1))
  },
}

/** Short of what a caller waits for an answer. */
const LONG_MS = 3000

async function textOf(request: IncomingMessage): Promise<string> {
  const chunks: Buffer[] = []
  for await (const chunk of request) chunks.push(chunk as Buffer)
  return Buffer.concat(chunks).toString()
}
const bodyOf = async (request: IncomingMessage) => JSON.parse((await textOf(request)) || '{}') as Record<string, unknown>

/** What became of a request, by the reply that it got. */
function outcomeOf(reply: Reply | undefined): object {
  if (!reply) return { outcome: 'not received' }
  const { at, deletedAt, error } = reply.body as { at?: string; deletedAt?: string; error?: string }
  return (at ?? deletedAt) ? { outcome: 'done', at: at ?? deletedAt } : { outcome: 'refused', why: error ?? `status ${reply.status}` }
}

/**
 * A small cloud that plays Brackwater: says how a resource is, lists gateways and what passes them, deletes one and says what became
 * of it, moves its clock by a day, a week or a month and delivers the bill to date, in which what was done shows. Told so, its next
 * answer fails, never comes, or comes twice, and what it has may change its mind: a gateway is used again, or locked.
 * @param token the secret that callers have to know; without one everybody is answered. @param begins see `readState`.
 */
export function cloudServer(stateFile: string, token?: string, begins: Partial<CloudState> = {}): Server {
  let state = readState(stateFile, begins)
  const planted = brackwaterInventory()
  /** What is there beside what was planted: what somebody has made, and snapshots of what was deleted. */
  const besideOf = (of: CloudState) => {
    const made = madeResources(of, planted)
    return [...made, ...snapshotsTaken(of, [...planted, ...made])]
  }
  let beside = besideOf(state)
  let inventory = [...planted, ...beside]
  const gateways = () => inventory.filter((r): r is Gateway => r.use.kind === 'gateway')
  const save = (next: CloudState) => {
    writeState(stateFile, next)
    if (next.made !== state.made || next.deletions !== state.deletions) {
      beside = besideOf(next)
      inventory = [...planted, ...beside]
    }
    state = next
  }
  /** Its clock goes on; what people make again until then is there. */
  const goOn = (day: Day) =>
    save({ ...state, day, ...(state.isMadeAgain && { made: [...state.made, ...madeAgainUntil(day, state, planted)] }) })
  const clock = () => `${state.day}T${String(state.hour).padStart(2, '0')}:00:00Z`
  const existing = () => gateways().filter(g => runsOn(g, state.day) && !state.deletions[g.id])
  const notFound = (what: string): Reply => ({ status: 404, body: { error: `there is no ${what}` } })

  const describe = (g: Gateway) => ({
    id: g.id,
    name: g.name,
    region: g.region,
    account: g.account,
    createdAt: `${g.since}T00:00:00Z`,
    tags: g.tags,
  })

  const isKind = (type: string | undefined): type is CloudResource['use']['kind'] =>
    type !== undefined && Object.hasOwn(measuredOfKind, type)
  const isActed = (type: string | undefined): type is keyof typeof actionsOfKind => type !== undefined && Object.hasOwn(actionsOfKind, type)
  const metricsOf = (kind: CloudResource['use']['kind']): Reply => ({
    status: 200,
    body: { metrics: (measuredOfKind[kind] ?? []).map(metric => ({ metric, what: metrics[metric].what, unit: metrics[metric].unit })) },
  })

  /** What was measured of a resource on a day, hour by hour; null where nothing is, or it stands still. */
  function measuredHours(resource: CloudResource, metric: MetricName, day: Day): (number | null)[] {
    const measured = measuredOn(resource, metric, day)
    if (!measured) return Array<null>(24).fill(null)
    if (!state.schedules[resource.id]) return measured
    const runs = runsIn(state, resource.id, day)
    return measured.map((value, hour) => (runs[hour] ? value : null))
  }

  /** A metric of all resources of a kind on a day, hour by hour as far as it is over. */
  function ofDay(kind: CloudResource['use']['kind'], query: URLSearchParams): Reply {
    const [metric, day] = [query.get('metric') ?? '', query.get('day') ?? '']
    if (!isDay(day)) return { status: 400, body: { error: 'name the day' } }
    if (!isMetric(metric) || !measuredOfKind[kind]?.includes(metric)) return notFound('such metric')
    const over = day < state.day ? 24 : day === state.day ? state.hour : 0
    const hours = (resource: CloudResource) => measuredHours(resource, metric, day).map((value, hour) => (hour < over ? value : null))
    const there = inventory.filter(one => one.use.kind === kind && runsOn(one, day) && !state.deletions[one.id])
    return { status: 200, body: { resources: there.map(one => ({ id: one.id, hours: hours(one) })) } }
  }

  /** What is listed of a type, measured of one, or done to it; of gateways alone more is known than how they are. */
  function ofInventory(method: string, [type, id, more]: string[], query: URLSearchParams, body: Record<string, unknown>): Reply {
    if (method === 'GET' && id === 'actions') return { status: 200, body: { actions: isActed(type) ? actionsOfKind[type] : [] } }
    if (method === 'PUT' || method === 'DELETE') {
      const resource = inventory.find(one => one.id === id && one.use.kind === type && runsOn(one, state.day))
      if (!resource) return notFound('such resource')
      const after = query.get('after')
      const { reply, next } = change(method, resource, { ...body, ...(after !== null && { after }) }, state)
      if (next) save({ ...state, ...next })
      return reply
    }
    if (type !== 'gateway' && method === 'GET' && isKind(type) && (id === 'metrics' || id === 'measured'))
      return id === 'metrics' ? metricsOf(type) : ofDay(type, query)
    if (type !== 'gateway' && method === 'GET' && !more)
      return { status: 200, body: id === 'metrics' ? { metrics: [] } : { resources: [] } }
    if (method === 'GET' && type !== 'gateway' && more === 'readings') return readingsOf(id, query)
    if (type !== 'gateway') return notFound('such resource')
    if (method === 'GET' && !id) return { status: 200, body: { resources: existing().map(describe) } }
    if (method === 'GET' && id === 'metrics')
      return { status: 200, body: { metrics: [{ metric: 'passed', what: 'passed through', unit: 'GB' }] } }
    const gateway = gateways().find(g => g.id === id)
    if (!gateway) return notFound('such gateway')
    if (method === 'GET' && more === 'readings') {
      const [from, to] = [query.get('from') ?? '', query.get('to') ?? '']
      if (!isDay(from) || !isDay(to)) return { status: 400, body: { error: 'name from and to as days' } }
      if (query.get('metric') !== 'passed') return notFound('such metric')
      const until = state.deletions[gateway.id] ?? { day: state.day, hour: state.hour }
      const passes = state.passes[gateway.id] ?? 0
      const readings = hourlyReadings(gateway, from < gateway.since ? gateway.since : from, to, until)
      return {
        status: 200,
        body: { readings: readings.map(({ hour, gb }) => ({ at: hour, value: hour.startsWith(state.day) ? gb + passes : gb })) },
      }
    }
    return notFound('such thing')
  }

  /** A metric of one resource, hour by hour; `to` exclusive, of today the hours that are over. */
  function readingsOf(id: string | undefined, query: URLSearchParams): Reply {
    const [metric, from, to] = ['metric', 'from', 'to'].map(name => query.get(name) ?? '') as [string, string, string]
    const resource = inventory.find(one => one.id === id)
    if (!isDay(from) || !isDay(to)) return { status: 400, body: { error: 'name from and to as days' } }
    if (!resource || !isMetric(metric) || !measuredOn(resource, metric, state.day)) return notFound('such metric')
    const more = state.passes[resource.id] ?? 0
    const readings = daysOf({ start: from, end: to }).flatMap(day =>
      measuredHours(resource, metric, day).flatMap((value, hour) =>
        value !== null && (day < state.day || (day === state.day && hour < state.hour))
          ? [{ at: `${day}T${String(hour).padStart(2, '0')}:00:00Z`, value: day === state.day ? value + more : value }]
          : [],
      ),
    )
    return { status: 200, body: { readings } }
  }

  function act(request: IncomingMessage, path: string[], query: URLSearchParams, body: Record<string, unknown>): Reply | Buffer {
    const route = `${request.method} ${path[1] ?? ''}`
    if (route === 'GET clock') return { status: 200, body: { now: clock(), provider: 'Brackwater Cloud' } }
    const next = request.method === 'POST' && path[1] === 'clock' ? NEXT[path[2] ?? ''] : undefined
    if (next) {
      goOn(next(state.day))
      return { status: 200, body: { now: clock() } }
    }
    if (route === 'GET events') {
      const since = query.get('since') ?? ''
      if (!isDay(since)) return { status: 400, body: { error: 'name since as a day' } }
      const events = Object.entries(state.deletions)
        .filter(([, { day }]) => day >= since)
        .map(([id, { day, hour }]) => ({
          id: `${id}/deleted`,
          at: `${day}T${String(hour).padStart(2, '0')}:00:00Z`,
          resourceId: id,
          what: 'deleted',
          by: 'Rain Barrel',
        }))
      const made = planted.flatMap(resource => {
        const by = makerOf(resource)
        if (by === null || resource.since < since || resource.since > state.day) return []
        return [created(resource.id, `${resource.since}T08:00:00Z`, by)]
      })
      const lately = state.made.filter(({ at }) => at >= since).map(one => created(madeId(one), one.at, one.by))
      return { status: 200, body: { events: [...made, ...lately, ...events] } }
    }
    if (route === 'GET rate-card') return { status: 200, body: brackwaterNextCard }
    if (route === 'GET bills') {
      const month = path[2] ?? ''
      if (!/^\d{4}-\d{2}$/.test(month)) return notFound('such month')
      const [deletions, changes] = [new Map(Object.entries(state.deletions)), new Map(Object.entries(state.changes))]
      let text = headerLine
      const running = (id: string, day: Day) => runningHours(state, id, day)
      const done = { deletions, changes, runningHours: running, tags: new Map(Object.entries(state.tags)), made: beside }
      for (const charge of brackwaterDelivery(month, state.day, done)) text += chargeLine(charge)
      return gzipSync(text)
    }
    if (route === 'GET resources') {
      const found = inventory.find(r => r.id === path[2])
      return found && runsOn(found, state.day) && !state.deletions[found.id]
        ? {
            status: 200,
            body: {
              ...{ id: found.id, type: found.use.kind, name: found.name, region: found.region, account: found.account },
              ...{ settings: settingsOf(found, state), tags: tagsOf(found, state), ...conditionOf(found, state) },
            },
          }
        : notFound('such resource')
    }
    if (route === 'GET requests') return { status: 200, body: outcomeOf(state.replies[path[2] ?? '']) }
    if (path[1] === 'inventory') return ofInventory(request.method ?? '', path.slice(2), query, body)
    return notFound('such thing')
  }

  function send(response: ServerResponse, reply: Reply | Buffer, twice: boolean) {
    const bytes = Buffer.isBuffer(reply) ? reply : Buffer.from(JSON.stringify(reply.body))
    const status = Buffer.isBuffer(reply) ? 200 : reply.status
    response.writeHead(status, {
      ...(status === 429 && { 'retry-after': '1' }),
      'content-type': Buffer.isBuffer(reply) ? 'application/gzip' : 'application/json',
      'content-length': bytes.length,
    })
    if (twice)
      response.socket?.write(
        Buffer.concat([
          Buffer.from(`HTTP/1.1 ${status} OK\r\ncontent-type: application/json\r\ncontent-length: ${bytes.length}\r\n\r\n`),
          bytes,
        ]),
      )
    response.end(bytes)
  }

  /** The page by which a person plays it; what a form of it asks for is done, and the page shown anew. */
  async function control(request: IncomingMessage, response: ServerResponse) {
    if (request.method === 'POST') {
      const asked = new URLSearchParams(await textOf(request))
      const next = NEXT[asked.get('clock') ?? '']
      if (next) goOn(next(state.day))
      else save({ ...state, ...controlled(state, asked) })
      return void response.writeHead(303, { location: '/control' }).end()
    }
    response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(controlPage(state))
  }

  async function answer(request: IncomingMessage, response: ServerResponse) {
    const url = new URL(request.url ?? '/', 'http://stand-in')
    const path = url.pathname.split('/').filter(Boolean).map(decodeURIComponent)
    if (request.method === 'POST' && path[1] === 'behaviour') {
      save({ ...state, ...((await bodyOf(request)) as Partial<CloudState>) })
      return send(response, { status: 200, body: { next: state.next } }, false)
    }
    if (path[0] === 'control') return control(request, response)
    if (token && request.headers.authorization !== `Bearer ${token}`)
      return send(response, { status: 401, body: { error: 'the secret is missing or wrong' } }, false)
    const behaviour = state.next
    if (behaviour) save({ ...state, next: null })
    if (behaviour === 'fail') return send(response, { status: 503, body: { error: 'the control service is being repaired' } }, false)
    if (behaviour === 'lose') return void request.socket.destroy()
    const key = request.headers['request-key']
    const known = typeof key === 'string' ? state.replies[key] : undefined
    const body = request.method === 'PUT' ? await bodyOf(request) : {}
    const reply = known ?? act(request, path, url.searchParams, body)
    // what was asked to wait may come again under its key
    const isKept = !Buffer.isBuffer(reply) && reply.status !== 429
    if (typeof key === 'string' && !known && isKept) save({ ...state, replies: { ...state.replies, [key]: reply } })
    if (behaviour === 'take long') await new Promise(resolve => setTimeout(resolve, LONG_MS))
    if (behaviour === 'time out') return // the deed is done, the answer never comes
    send(response, reply, behaviour === 'answer twice')
  }

  return createServer((request, response) => {
    answer(request, response).catch((error: Error) => {
      console.error(error)
      if (!response.headersSent) send(response, { status: 500, body: { error: error.message } }, false)
    })
  })
}
