import { createServer, type Server } from 'node:http'
import { TODAY } from '../../demo/calendar'
import { applications, businessMeasures } from '../../demo/register'

/** A company's register of applications and business figures, as `docs/connections.md` says it speaks; it answers and remembers nothing. */
export function registerServer(): Server {
  const measures = businessMeasures()
  const answer = (path: string[], query: URLSearchParams): unknown => {
    const [version, what, name] = path
    if (version !== 'v1') return null
    if (what === 'clock') return { now: `${TODAY}T09:00:00Z`, company: 'Skerry Lines' }
    if (what === 'lookups') return { lookups: [{ name: 'applications', lookup: applications }] }
    if (what !== 'measures') return null
    if (name === undefined) return { measures: measures.map(({ name }) => ({ name })) }
    const measure = measures.find(one => one.name === name)
    if (!measure) return null
    const { unit, grain, tree, values } = measure
    const since = (query.get('since') ?? '').slice(0, grain === 'month' ? 7 : 10)
    return { unit, grain, tree, values: values.filter(({ date }) => date >= since) }
  }
  return createServer((request, response) => {
    const url = new URL(request.url ?? '/', 'http://stand-in')
    const body = request.method === 'GET' ? answer(url.pathname.split('/').filter(Boolean).map(decodeURIComponent), url.searchParams) : null
    response.writeHead(body === null ? 404 : 200, { 'content-type': 'application/json' })
    response.end(JSON.stringify(body ?? { error: 'there is no such thing' }))
  })
}
