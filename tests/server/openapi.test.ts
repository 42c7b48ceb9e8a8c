import Ajv2020 from 'ajv/dist/2020'
import { readdirSync, readFileSync } from 'node:fs'
import { join, relative } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { operations } from '../../server/operations'
import { charge, focusCsv } from '../support/charges'
import { deliver } from '../support/imports'
import { post, remove, startServer, type Running } from '../support/server'

let server: Running
type Document = {
  openapi: string
  paths: Record<
    string,
    Record<
      string,
      {
        requestBody?: { content: Record<string, { schema: object }> }
        responses: Record<string, { content: Record<string, { schema: object }> }>
      }
    >
  >
  components: { schemas: Record<string, object> }
}
let document: Document
beforeAll(async () => {
  server = await startServer()
  document = await server.json<Document>('openapi.json')
  await deliver(server, 'one', focusCsv([charge({ BilledCost: '10' })]))
})
afterAll(async () => {
  await server.stop()
  remove(server.folder)
})

const routes = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap(entry =>
    entry.isDirectory() ? routes(join(folder, entry.name)) : [join(folder, entry.name)],
  )

it('describes every route there is, and no other', () => {
  const files = routes('server/api/v1')
    .map(file => relative('server/api/v1', file))
    .filter(file => !file.startsWith('[...'))
    .map(file => {
      const [, path, method] = /^(.*?)(?:\/index)?\.(get|post|put|delete)\.ts$/.exec(file)!
      return `${method} /${path!.replaceAll(/\[(\w+)\]/g, '{$1}')}`
    })
  expect(
    Object.entries(document.paths)
      .flatMap(([path, methods]) => Object.keys(methods).map(method => `${method} ${path}`))
      .sort(),
  ).toEqual(files.sort())
  expect(document.openapi).toBe('3.1.0')
})

it('every route carries out the operation of its own path', () => {
  const entries: Record<string, Record<string, { method: string; path: string }>> = operations
  for (const file of routes('server/api/v1').filter(name => !name.includes('[...'))) {
    const [, group, name] = /route\(operations\.(\w+)\.(\w+),/.exec(readFileSync(file, 'utf8')) ?? []
    const { method, path } = entries[group!]![name!]!
    const own = path.replaceAll(/\{(\w+)\}/g, '[$1]')
    expect([`server/api/v1${own}.${method}.ts`, `server/api/v1${own}/index.${method}.ts`]).toContain(file)
  }
})

it('its schemas are JSON Schema, and real replies and bodies fit them', async () => {
  const ajv = new Ajv2020({ strict: false, validateFormats: false })
  for (const methods of Object.values(document.paths)) {
    for (const operation of Object.values(methods)) {
      for (const { content } of [
        ...(operation.requestBody ? [operation.requestBody] : []),
        ...Object.entries(operation.responses)
          .filter(([status]) => status !== 'default')
          .map(([, r]) => r),
      ]) {
        for (const { schema } of Object.values(content)) expect(() => ajv.compile(schema)).not.toThrow()
      }
    }
  }
  const question = { measure: 'billedCost', splitBy: ['ServiceName'], grain: 'day', start: '2026-10-01', end: '2026-11-01' }
  const calls: [string, string, unknown?][] = [
    ['post', '/spend/answer', question],
    ['get', '/spend/dimensions'],
    ['get', '/sources'],
    ['get', '/estimates'],
    ['get', '/rates'],
    ['post', '/spend/price-parts', question],
    ['get', '/people'],
    ['get', '/sentences'],
    ['get', '/savings'],
  ]
  for (const [method, path, body] of calls) {
    const { requestBody, responses } = document.paths[path]![method]!
    if (body) expect(ajv.compile(requestBody!.content['application/json']!.schema)(body)).toBe(true)
    const reply = await server.json(path.slice(1), body ? post(body) : {})
    const fits = ajv.compile(responses['200']!.content['application/json']!.schema)
    expect([path, fits(reply), fits.errors]).toEqual([path, true, null])
  }
  const wrong = ajv.compile(document.paths['/spend/answer']!.post!.requestBody!.content['application/json']!.schema)
  expect(wrong({ ...question, measure: 'free' })).toBe(false)
  const problem = (await (await server.call('spend/answer', post({}))).json()) as unknown
  expect(ajv.compile(document.components.schemas.Problem!)(problem)).toBe(true)
})
