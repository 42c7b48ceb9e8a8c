// Every operation that the OpenAPI document has is sent what nobody means: each reply, good or bad, is held against its own schema.
import { createHash } from 'node:crypto'
import { request } from 'node:http'
import Ajv2020 from 'ajv/dist/2020'
import { beforeAll, expect, it } from 'vitest'
import { charge, focusCsv } from '../support/charges'
import { deliver } from '../support/imports'
import { ownServer } from '../support/own-server'
import { post, put } from '../support/server'

type Schema = { [name: string]: unknown } & { type?: string; properties?: Record<string, Schema>; items?: Schema; required?: string[] }
type Operation = {
  parameters: { name: string; in: 'path' | 'query'; required: boolean; schema: Schema }[]
  requestBody?: { content: Record<string, { schema: Schema }> }
  responses: Record<string, { content: Record<string, { schema: Schema }> }>
}
type Document = { paths: Record<string, Record<string, Operation>>; components: { schemas: Record<string, Schema> } }

const server = ownServer()
let document: Document
beforeAll(async () => {
  document = await server.json<Document>('openapi.json')
  await deliver(server, 'one', focusCsv([charge({ BilledCost: '10' })]))
})

const names = ['constructor', '__proto__', 'toString', '%00', '%ff', '%e0%80', '', '..', '%2e%2e%2f', 'x'.repeat(3000)]
const numbers = ['0', '-1', '1.5', '2147483647', '2147483648', '99999999999999999999', '1e400', 'NaN']
const days = ['2026-02-31', '0000-00-00', '9999-12-31', '2026-13']
const values: unknown[] = [
  ...[null, '', '\u0000', '\ud800', 'constructor', '__proto__', '2026-02-31', '9999-12-31', 'x'.repeat(10_000), '🜃', '1e999'],
  ...[-1, 1e308, 1.5, 2 ** 53, true, [], {}, [null], { a: 1 }, { constructor: 1 }],
]
const bodies = [
  '',
  'null',
  '[]',
  '{}',
  '{"a":1}',
  '"text"',
  '1',
  '{"__proto__":{"a":1}}',
  '{',
  '\u0000',
  '"\\ud800"',
  '[['.repeat(100) + ']]'.repeat(100),
]

/** A value that fits a schema, as far as a schema says so much. */
function sample(schema: Schema): unknown {
  const { anyOf, oneOf, allOf, enum: list } = schema as { anyOf?: Schema[]; oneOf?: Schema[]; allOf?: Schema[]; enum?: unknown[] }
  if ('const' in schema) return schema.const
  if (list) return list[0]
  if (anyOf || oneOf) return sample((anyOf ?? oneOf)![0]!)
  if (allOf) return Object.assign({}, ...allOf.map(sample)) as unknown
  if (schema.type === 'object') return Object.fromEntries(Object.entries(schema.properties ?? {}).map(([name, own]) => [name, sample(own)]))
  if (schema.type === 'array') return schema.items ? [sample(schema.items)] : []
  if (schema.type === 'integer' || schema.type === 'number') return Math.max(1, Number(schema.minimum ?? 1))
  if (schema.type === 'boolean') return true
  return schema.pattern && /\\d/.test(String(schema.pattern)) ? '2026-10' : '2026-10-01'
}

/** The same with one place of it changed, for each of its places in turn. */
function* changed(value: unknown, replace: () => unknown): Generator<unknown> {
  yield replace()
  if (Array.isArray(value)) for (const [i, own] of value.entries()) for (const other of changed(own, replace)) yield value.with(i, other)
  else if (typeof value === 'object' && value !== null)
    for (const [name, own] of Object.entries(value)) for (const other of changed(own, replace)) yield { ...value, [name]: other }
}

/** As it stands: fetch would mend the path. On a connection of its own: an open one may be closed just as it is used again. */
const send = (method: string, path: string, text: string | Buffer | null) =>
  new Promise<{ status: number; type: string; bytes: Buffer }>((resolve, reject) => {
    const headers = text === null ? {} : { 'content-type': 'application/json', 'content-length': Buffer.byteLength(text) }
    const asked = request(`${server.base}/api/v1`, { agent: false, method, path: `/api/v1${path}`, headers }, reply => {
      const chunks: Buffer[] = []
      reply.on('data', (chunk: Buffer) => chunks.push(chunk))
      reply.on('end', () => resolve({ status: reply.statusCode!, type: reply.headers['content-type'] ?? '', bytes: Buffer.concat(chunks) }))
      reply.on('error', reject)
    })
    asked.on('error', reject)
    asked.end(text ?? undefined)
  })

it('answers junk on every operation by what is described, and never with a fault', async () => {
  const ajv = new Ajv2020({ strict: false, validateFormats: false })
  const fitsProblem = ajv.compile(document.components.schemas.Problem!)
  const wrong: unknown[] = []
  let sent = 0
  let turn = 0
  for (const [path, methods] of Object.entries(document.paths)) {
    for (const [method, operation] of Object.entries(methods)) {
      if (path === '/maintenance/backup') continue // only for whoever knows the folder: has tests of its own
      const [[status, good]] = Object.entries(operation.responses) as [[string, Operation['responses'][string]]]
      const [[type, { schema }]] = Object.entries(good.content) as [[string, { schema: Schema }]]
      const fitsReply = ajv.compile(schema)
      const ask = async (at: string, text: string | Buffer | null) => {
        sent++
        const reply = await send(method.toUpperCase(), at, text)
        const note = (why: string) =>
          wrong.push([method, at.slice(0, 200), String(text).slice(0, 300), reply.status, why, reply.bytes.toString().slice(0, 300)])
        if (reply.status === Number(status)) {
          if (type === 'application/json' && !fitsReply(JSON.parse(reply.bytes.toString())))
            note(JSON.stringify(fitsReply.errors!.slice(0, 2)))
          return
        }
        if (reply.status < 400 || (reply.status >= 500 && reply.status !== 502)) note('status')
        else if (!reply.type.startsWith('application/problem+json') || !fitsProblem(JSON.parse(reply.bytes.toString()))) note('no problem')
      }
      const fill = (which: (name: string) => string) => path.replace(/\{(\w+)\}/g, (_, name: string) => which(name))
      const plain = fill(() => '1')
      const asked = operation.parameters.filter(parameter => parameter.in === 'query')
      const queryOf = (own: Record<string, string>) =>
        asked.length
          ? `?${asked.map(({ name, schema }) => `${name}=${own[name] ?? encodeURIComponent(String(sample(schema)))}`).join('&')}`
          : ''
      const json = operation.requestBody?.content['application/json']?.schema
      const usual = json ? JSON.stringify(sample(json)) : null
      if (path.includes('{')) for (const junk of [...names, ...numbers]) if (junk) await ask(fill(() => junk) + queryOf({}), usual)
      for (const { name } of asked) for (const junk of [...names, ...numbers, ...days]) await ask(plain + queryOf({ [name]: junk }), usual)
      if (operation.requestBody && !json) await ask(plain + queryOf({}), Buffer.from([0, 255, 1, 2, 10, 44, 44, 10]))
      if (!json) continue
      for (const body of bodies) await ask(plain, body)
      await ask(plain, Buffer.from([0x7b, 0x22, 0xff, 0x22, 0x3a, 0x31, 0x7d]))
      // two of the values in each place, by turns, so that all are used in all kinds of places
      for (let round = 0; round < 2; round++)
        for (const body of changed(sample(json), () => values[turn++ % values.length])) await ask(plain, JSON.stringify(body))
    }
  }
  expect(wrong).toEqual([])
  expect(sent).toBeGreaterThan(2000)
  expect(server.log()).not.toMatch(/fault|error/i)
}, 600_000)

it('refuses what is too large, too deep or too much, and takes files as JSON that are larger', async () => {
  const large = `{"name":"${'x'.repeat(2 * 1024 * 1024)}"}`
  const reply = await send('POST', '/spend/answer', large)
  expect([reply.status, (JSON.parse(reply.bytes.toString()) as { code: string }).code]).toEqual([413, 'too-large'])
  const lines = Array.from({ length: 20_000 }, () => ({
    from: 'EUR',
    to: 'USD',
    'valid from': '2026-10-01',
    rate: '1.1',
    note: 'x'.repeat(60),
  }))
  expect((await server.call('rates/table', post({ lines }))).status).not.toBe(413)
  const code = async (init: RequestInit) => ((await (await server.call('spend/answer', init)).json()) as { code: string }).code
  expect(await code({ method: 'POST', body: '['.repeat(50) + ']'.repeat(50) })).toBe('too-deep')
  expect(await code({ method: 'POST', body: `[${'1,'.repeat(250_000)}1]` })).toBe('too-many')
  expect(await code({ method: 'POST', body: '["a\\u0000"]' })).toBe('invalid')
})

it('keeps nothing that would fail ever after: a mapping that says nothing, a link of a hundred years', async () => {
  for (const mapping of [{ a: 1 }, {}, { numbers: {} }, { texts: { ServiceName: { constant: 'x' } } }])
    expect([mapping, (await server.call('mappings/junk', put(mapping))).status]).toEqual([mapping, 422])
  expect((await server.call('mappings/junk')).status).toBe(404)
  expect(await server.json('mappings')).toEqual({ sources: [] })
})

it('answers addresses that are no text, outside the API too', async () => {
  for (const path of [
    '/%ff',
    '/shared/%ff',
    '/estimates/%e0%80',
    '/spend/%00',
    '/_nuxt/%ff',
    `/${createHash('sha256').update('x').digest('hex')}`,
  ]) {
    const status = await new Promise<number>((resolve, reject) =>
      request(`${server.base}/`, { path }, reply => (reply.resume(), resolve(reply.statusCode!)))
        .on('error', reject)
        .end(),
    )
    expect([path, status < 500]).toEqual([path, true])
  }
})
