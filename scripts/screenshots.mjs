// `npm run screenshots`: one picture of each main view, from a running `npm run demo` (or the address in RAIN_BARREL). Plain Node.
import { readFileSync, mkdirSync } from 'node:fs'
import { chromium } from '@playwright/test'

const base = process.env.RAIN_BARREL ?? 'http://127.0.0.1:3000'
const folder = 'docs/screenshots'
mkdirSync(folder, { recursive: true })
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update', '--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1'],
})

async function open(colorScheme = 'light') {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, locale: 'en-GB', colorScheme, reducedMotion: 'reduce' })
  page.on('console', message => message.type() === 'error' && console.error(message.text()))
  return page
}
async function take(page, name) {
  await page.waitForLoadState('networkidle')
  await page.waitForTimeout(600)
  await page.screenshot({ path: `${folder}/${name}.png` })
  console.log(`${folder}/${name}.png`)
}
const spent = '/spend?step=SubAccountName%3Drehearsal&step=ServiceName%3DLog+search&step=SkuMeter%3Dsearched%2C+GB'

/** An estimate to look at: brought in through the interface unless one of its name is there. */
async function estimateId() {
  const { estimates } = await (await fetch(`${base}/api/v1/estimates`)).json()
  const known = estimates.find(e => e.estimate.name === 'Pier boards, live departures')
  if (known) return known.id
  const id = crypto.randomUUID()
  const estimate = JSON.parse(readFileSync('demo/estimate-pier-boards.json', 'utf8'))
  const response = await fetch(`${base}/api/v1/estimates/${id}`, { method: 'PUT', headers: { 'content-type': 'application/json', 'cookie': 'rain-barrel-person=Ines%20Moldal' }, body: JSON.stringify({ basedOn: null, estimate }) })
  if (!response.ok) throw new Error(await response.text())
  return id
}

const page = await open()
await page.goto(base + spent)
await take(page, 'spend')
await page.goto(`${base}/spend?by=Tags%2Fteam&each=month&from=2026-05-01&to=2026-11-01&cost=billed`)
await take(page, 'spend-by-team')
await page.goto(`${base}/allocation?month=2026-10`)
await take(page, 'allocation')
await page.goto(`${base}/estimates/${await estimateId()}`)
await page.locator('.cell').first().click()
await take(page, 'estimate')
await page.goto(`${base}/estimates`)
await take(page, 'estimates')
await page.goto(`${base}/savings`)
await page.getByRole('button', { name: /gw-test-rig-alder/ }).first().click()
await take(page, 'savings')
await page.goto(`${base}/sources`)
await page.getByRole('button', { name: 'Brackwater Cloud' }).first().click()
await take(page, 'sources')
const dark = await open('dark')
await dark.goto(base + spent)
await take(dark, 'spend-dark')
await browser.close()
