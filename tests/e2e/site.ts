// A site for the tests of one file: the built server with a cloud and a mail server of its own, on a data folder that nobody else has.
import { cpSync, existsSync, mkdtempSync, readFileSync, renameSync, rmSync } from 'node:fs'
import type { AddressInfo, Server } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { demoDeliveries } from '../../demo/deliveries'
import { cloudServer } from '../../stand-ins/cloud/server'
import { mailServer } from '../../stand-ins/mail/server'
import { startServer } from '../support/server'

/** Where a run keeps what its files have in common. */
const KEPT = process.env.E2E_KEPT ?? '.tests'
/** The demo's files of three months, as a person has them in a folder. */
export const FILES = join(KEPT, 'files')
export const RATE_CARDS = ['rate-card-brackwater.json', 'rate-card-larkfield.json', 'rate-card-pier-house.json']
/** The bills among them, of some months. */
export const billsOf = (months: readonly string[]) => demoDeliveries().filter(({ month }) => months.includes(month))
/** What stands in a folder before a file of tests begins: nothing, or what `loadBills` loads. */
const LOADED = join(KEPT, 'loaded')

/** What a file of tests begins with. Each file says which it is: files never share a site. */
export type Start = { from: 'nothing' | 'bills'; file: string }
export type Site = { base: string; cloud: string; log: () => string; stop: () => Promise<void> }

/** Lets a server listen on a free port. @returns the port. */
const listening = (server: Server) =>
  new Promise<number>(resolve => server.listen(0, '127.0.0.1', () => resolve((server.address() as AddressInfo).port)))

/** Starts a site on a folder; the folder stays. The server makes its connection to the cloud where the folder has none. */
async function startOn(folder: string): Promise<Site> {
  const cloud = cloudServer(join(folder, 'stand-in-cloud.json'))
  const mail = mailServer()
  const [cloudPort, smtpPort] = [await listening(cloud), await listening(mail.smtp.server)]
  const address = `http://127.0.0.1:${cloudPort}`
  const server = await startServer({
    folder: join(folder, 'data'),
    env: { BRACKWATER_URL: address, RAIN_BARREL_SMTP: `smtp://127.0.0.1:${smtpPort}` },
  })
  return {
    base: server.base,
    cloud: address,
    log: server.log,
    async stop() {
      await server.stop()
      cloud.closeAllConnections()
      cloud.close()
      mail.smtp.close()
    },
  }
}

/** Starts the site of a file of tests; what it wrote goes with it. */
export async function startSite({ from }: Start): Promise<Site> {
  const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-site-'))
  if (from === 'bills') cpSync(LOADED, folder, { recursive: true })
  const site = await startOn(folder)
  return {
    ...site,
    async stop() {
      await site.stop()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

/** Makes the folder that files begin with, once: rate cards, cost centres with people, the bills of October and November. */
export async function loadBills(): Promise<void> {
  if (existsSync(LOADED)) return
  const making = `${LOADED}-${process.pid}`
  // without a connection: each site has its cloud elsewhere
  const server = await startServer({ folder: join(making, 'data') })
  const send = async (method: string, path: string, file: string): Promise<unknown> => {
    const reply = await fetch(`${server.base}/api/v1/${path}`, {
      method,
      headers: file.endsWith('.json') ? { 'content-type': 'application/json' } : {},
      body: readFileSync(join(FILES, file)),
    })
    if (!reply.ok) throw new Error(`${file}: ${await reply.text()}`)
    return reply.json()
  }
  try {
    await send('POST', 'organisation', 'cost-centres.json')
    for (const card of RATE_CARDS) await send('POST', 'rate-cards', card)
    const sent: string[] = []
    for (const { source, file } of billsOf(['2026-10', '2026-11']))
      sent.push(((await send('POST', `imports?${new URLSearchParams({ source, file })}`, file)) as { id: string }).id)
    for (const id of sent) await loaded(server.base, id)
  } finally {
    await server.stop()
  }
  renameSync(making, LOADED)
}

async function loaded(base: string, id: string): Promise<void> {
  for (;;) {
    const { state } = (await (await fetch(`${base}/api/v1/imports/${id}`)).json()) as { state: string }
    if (state === 'loaded') return
    if (state === 'refused' || state === 'stopped') throw new Error(`a bill was ${state}`)
    await new Promise(resolve => setTimeout(resolve, 50))
  }
}
