// What every reply says of who may show it and what it may load; and who is answered.
import { createHash } from 'node:crypto'
import { once } from 'node:events'
import { readdirSync, statSync } from 'node:fs'
import { request } from 'node:http'
import { connect } from 'node:net'
import { expect, it } from 'vitest'
import { ownServer } from '../support/own-server'

const server = ownServer()

it('stands on every reply: pages, scripts, the API, refusals and files', async () => {
  const script = `/_nuxt/${readdirSync('.output/public/_nuxt').find(name => name.endsWith('.js'))}`
  for (const path of [
    '/',
    '/spend',
    '/nowhere',
    script,
    '/icon.svg',
    '/api/v1/health',
    '/api/v1/people',
    '/api/v1/nowhere',
    '/api/v1/shared/none',
  ]) {
    const { headers } = await fetch(`${server.base}${path}`)
    expect([path, headers.get('x-powered-by')]).toEqual([path, null])
    expect(Object.fromEntries(headers)).toMatchObject({
      'x-frame-options': 'DENY',
      'x-content-type-options': 'nosniff',
      'cross-origin-opener-policy': 'same-origin',
      'cross-origin-resource-policy': 'same-origin',
      'referrer-policy': 'no-referrer',
      'permissions-policy': expect.stringContaining('camera=()'),
    })
    const policy = headers.get('content-security-policy')!
    expect(policy).toMatch(/^default-src 'none'; script-src 'self'/)
    expect(policy).toContain("frame-ancestors 'none'")
    expect(policy).not.toMatch(/script-src[^;]*unsafe|img-src[^;]*(http|\*)/)
  }
})

it('allows the scripts that stand in the page by their hashes, and no others', async () => {
  const reply = await fetch(`${server.base}/spend`)
  const html = await reply.text()
  const scripts = html
    .split('<script>')
    .slice(1)
    .map(rest => rest.split('</script>')[0]!)
  expect(scripts.length).toBe(2)
  const hashes = scripts.map(text => `'sha256-${createHash('sha256').update(text).digest('base64')}'`)
  expect(reply.headers.get('content-security-policy')).toContain(`script-src 'self' ${hashes.join(' ')};`)
})

const sizeOf = (name: string) => statSync(`.output/public/_nuxt/${name}`).size

it('scripts and styles travel compressed, and something stands on the page before any of them', async () => {
  for (const ending of ['.js', '.css']) {
    const names = readdirSync('.output/public/_nuxt').filter(one => one.endsWith(ending))
    const name = names.toSorted((a, b) => sizeOf(b) - sizeOf(a))[0]!
    const size = async (encoding: string) => {
      const { headers } = await fetch(`${server.base}/_nuxt/${name}`, { headers: { 'accept-encoding': encoding } })
      return [headers.get('content-encoding'), Number(headers.get('content-length'))] as const
    }
    const [plain, gzip, br] = [await size('identity'), await size('gzip'), await size('br')]
    expect([plain[0], gzip[0], br[0]]).toEqual([null, 'gzip', 'br'])
    expect(gzip[1]).toBeLessThan(plain[1])
    expect(br[1]).toBeLessThan(plain[1])
  }
  const html = await (await fetch(`${server.base}/spend`)).text()
  expect(html.replaceAll(/<(script|style)[\s\S]*?<\/\1>/g, '')).toMatch(/<div class="before-scripts"[\s\S]*Rain Barrel/)
})

it('answers pages of its own, links that are followed and tools; not what other sites load or send', async () => {
  // fetch does not let these headers be set
  const ask = (method: string, path: string, headers: Record<string, string>) =>
    new Promise<number>((resolve, reject) => {
      const asked = request(`${server.base}${path}`, { method, headers }, reply => {
        reply.resume()
        resolve(reply.statusCode!)
      })
      asked.on('error', reject)
      asked.end()
    })
  const from = (site: string, mode: string, dest: string) => ({ 'sec-fetch-site': site, 'sec-fetch-mode': mode, 'sec-fetch-dest': dest })
  for (const [method, path, headers, status] of [
    ['GET', '/api/v1/people', {}, 200],
    ['GET', '/api/v1/people', from('same-origin', 'cors', 'empty'), 200],
    ['GET', '/spend', from('none', 'navigate', 'document'), 200],
    ['GET', '/spend', from('cross-site', 'navigate', 'document'), 200],
    ['GET', '/spend', from('cross-site', 'navigate', 'iframe'), 403],
    ['GET', '/api/v1/people', from('cross-site', 'no-cors', 'script'), 403],
    ['GET', '/api/v1/people', from('same-site', 'no-cors', 'image'), 403],
    ['POST', '/api/v1/savings/look', from('cross-site', 'no-cors', 'empty'), 403],
    ['POST', '/api/v1/savings/look', from('cross-site', 'navigate', 'document'), 403],
    ['POST', '/api/v1/savings/look', { origin: 'http://elsewhere.example' }, 403],
  ] as const) {
    expect([method, path, headers, await ask(method, path, headers)]).toEqual([method, path, headers, status])
  }
})

it('whoever leaves before all of a request has come is no fault of the server', async () => {
  const { port } = new URL(server.base)
  for (const path of ['resources/makers', 'spend/answer', 'savings/decisions']) {
    const socket = connect(Number(port), '127.0.0.1')
    await once(socket, 'connect')
    socket.write(
      `POST /api/v1/${path} HTTP/1.1\r\nhost: 127.0.0.1:${port}\r\ncontent-type: application/json\r\ncontent-length: 100\r\n\r\n{"half":`,
    )
    await new Promise(resolve => setTimeout(resolve, 150))
    socket.destroy()
  }
  await new Promise(resolve => setTimeout(resolve, 300))
  expect((await server.call('health')).status).toBe(200)
  expect(server.log()).not.toContain('fault')
})
