// Files on their way in: two at once for one part, one broken off, one that is not what was announced.
import { createHash } from 'node:crypto'
import { readdirSync } from 'node:fs'
import { request } from 'node:http'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { charge, focusCsv } from '../support/charges'
import { ended } from '../support/imports'
import { ownServer } from '../support/own-server'
import { post } from '../support/server'

const server = ownServer()

const inbox = () => readdirSync(join(server.folder, 'inbox'), { recursive: true, encoding: 'utf8' }).sort()
const sha256 = (text: string) => createHash('sha256').update(text).digest('hex')
/** Bills of the same length, told apart by their cost. */
const bill = (account: string, cost: string) => focusCsv([charge({ BillingAccountId: account, BilledCost: cost })])
const announce = async (files: { name: string; bytes: number }[]) =>
  (await server.json<{ id: string }>('deliveries', post({ source: 'parts', files }))).id
const part = (id: string, number: number) => `deliveries/${id}/files/${number}`
const send = (path: string, body: string) =>
  server.call(path, { method: 'PUT', body, headers: { 'content-type': 'application/octet-stream' } })

/** A request that sends a part of what it says it would, then waits to be told what to do. */
function slowly(method: string, path: string, text: string, bytes = text.length) {
  const sent = request(`${server.base}/api/v1/${path}`, {
    method,
    headers: { 'content-length': bytes, 'content-type': 'application/octet-stream' },
  })
  const reply = new Promise<{ status: number; body: string }>((resolve, reject) => {
    sent.on('error', reject)
    sent.on('response', response => {
      let body = ''
      response.on('data', (chunk: Buffer) => (body += chunk.toString()))
      response.on('end', () => resolve({ status: response.statusCode!, body }))
    })
  })
  reply.catch(() => {}) // one that is broken off is not answered
  sent.write(text.slice(0, 20))
  return { finish: () => (sent.end(text.slice(20)), reply), breakOff: () => sent.destroy() }
}
async function until<T>(look: () => T, wanted: T) {
  for (let tries = 0; tries < 100 && JSON.stringify(look()) !== JSON.stringify(wanted); tries++)
    await new Promise(resolve => setTimeout(resolve, 20))
  expect(look()).toEqual(wanted)
}

it('lets one of two that send the same part at once win whole, and tells the other', async () => {
  const [one, two] = [bill('race', '1.25'), bill('race', '9.75')]
  const second = bill('second', '3')
  const id = await announce([
    { name: 'a.csv', bytes: one.length },
    { name: 'b.csv', bytes: second.length },
  ])
  const first = slowly('PUT', part(id, 0), one)
  const later = slowly('PUT', part(id, 0), two)
  await until(() => inbox().filter(name => name.startsWith(`${id}/`)).length, 2) // each into a file of its own
  expect((await later.finish()).status).toBe(200)
  const lost = await first.finish()
  expect(lost.status).toBe(409)
  expect(JSON.parse(lost.body)).toMatchObject({ code: 'conflict', title: 'That part has come already' })
  expect(inbox().filter(name => name.startsWith(`${id}/`))).toEqual([`${id}/0`])
  // the same once more is no conflict: its reply may have been lost
  expect((await send(part(id, 0), two)).status).toBe(200)
  expect(await (await send(part(id, 1), second)).json()).toEqual({ importId: id })
  const load = await ended(server, id)
  expect(load.files.map(({ name, sha256, rows }) => [name, sha256, rows])).toEqual([
    ['a.csv', sha256(two), 1],
    ['b.csv', sha256(second), 1],
  ])
  expect(load.periods.map(({ billedCost }) => billedCost)).toEqual(['12.75'])
  expect((await send(part(id, 1), second)).status).toBe(404)
})

it('keeps nothing of what breaks off or is not what was announced, at once', async () => {
  const text = bill('gone', '5')
  const single = slowly('POST', 'imports?source=gone&file=gone.csv', text)
  await until(() => inbox().length > 0, true)
  single.breakOff()
  await until(inbox, [])
  const id = await announce([{ name: 'a.csv', bytes: text.length }])
  const broken = slowly('PUT', part(id, 0), text)
  await until(() => inbox().length, 2)
  broken.breakOff()
  await until(inbox, [id])
  for (const [body, came] of [
    [text.slice(0, -1), String(text.length - 1)],
    [`${text} `, 'more'],
  ] as const) {
    const reply = await send(part(id, 0), body)
    expect([reply.status, ((await reply.json()) as { detail: string }).detail]).toEqual([
      422,
      expect.stringContaining(`was announced with ${text.length} bytes, and ${came} came`),
    ])
    expect(inbox()).toEqual([id])
  }
  expect(await (await send(part(id, 0), text)).json()).toEqual({ importId: id })
  expect((await ended(server, id)).state).toBe('loaded')
  expect(inbox()).toEqual([])
})
