// A first visit to Spend on the running demo (or the address in RAIN_BARREL), in a browser that has nothing stored: when anything is painted,
// when the heading is there, how many requests that takes, and how many bytes of script travel.
import { chromium } from '@playwright/test'

const base = process.env.RAIN_BARREL ?? 'http://127.0.0.1:3000'
const ROUNDS = 5
const median = (list: number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!

const answers = await fetch(`${base}/api/v1/health`).then(
  reply => reply.ok,
  () => false,
)
if (!answers) throw new Error(`No Rain Barrel answers at ${base}: start «npm run demo», or set RAIN_BARREL to its address.`)

const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu'],
})
const rounds = []
for (let i = 0; i < ROUNDS; i++) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' })
  const page = await context.newPage()
  const session = await context.newCDPSession(page)
  await session.send('Network.enable')
  const kinds = new Map<string, string>()
  let [requests, script, style] = [0, 0, 0]
  session.on('Network.requestWillBeSent', () => requests++)
  session.on('Network.responseReceived', ({ requestId, type }) => kinds.set(requestId, type))
  session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    if (kinds.get(requestId) === 'Script') script += encodedDataLength
    if (kinds.get(requestId) === 'Stylesheet') style += encodedDataLength
  })
  await page.goto(`${base}/spend`, { waitUntil: 'commit' })
  await page.getByRole('heading', { level: 1 }).waitFor()
  const heading = await page.evaluate(() => performance.now())
  await page.getByTestId('total').waitFor()
  const total = await page.evaluate(() => performance.now())
  await page.waitForLoadState('networkidle')
  const shell = await page.evaluate(() => performance.getEntriesByName('first-contentful-paint')[0]!.startTime)
  rounds.push({ shell, heading, total, requests, scriptKb: script / 1000, styleKb: style / 1000 })
  await context.close()
}
await browser.close()
const of = (name: keyof (typeof rounds)[number]) => Math.round(median(rounds.map(round => round[name])))
const found = {
  shell: of('shell'),
  heading: of('heading'),
  total: of('total'),
  requests: of('requests'),
  scriptKb: of('scriptKb'),
  styleKb: of('styleKb'),
}
console.log(found)
