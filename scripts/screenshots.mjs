// `npm run screenshots`: one picture of each main view, from a running `npm run demo` (or the address in RAIN_BARREL). Plain Node.
import { mkdirSync } from 'node:fs'
import { chromium } from '@playwright/test'
import { chromiumPath } from './chromium.mjs'

const base = process.env.RAIN_BARREL ?? 'http://127.0.0.1:3000'
const folder = 'docs/screenshots'
mkdirSync(folder, { recursive: true })
const browser = await chromium.launch({
  executablePath: chromiumPath(),
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-background-networking',
    '--disable-component-update',
    '--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1',
  ],
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

/** The demo's estimates have the same ids every time. */
const estimate = number => `${base}/estimates/00000000-0000-4000-8000-${String(number).padStart(12, '0')}`

const page = await open()
await page.goto(base + spent)
await take(page, 'spend')
await page.goto(`${base}/spend?show=comparison&period=last-month`)
await take(page, 'spend-comparison')
const { found } = await (await page.request.get(`${base}/api/v1/jump?q=recovery-booking`)).json()
await page.goto(`${base}/spend/resource?${new URLSearchParams({ id: found.find(f => f.dimension === 'ResourceId').id })}`)
await page.getByText('What happened').waitFor()
await take(page, 'resource')
await page.goto(`${base}/allocation?month=2026-11`)
await page.getByText('looks like').first().waitFor()
await take(page, 'allocation')
await page.goto(`${base}/allocation/unit-costs`)
await page.getByTestId('unit-costs').waitFor()
await take(page, 'unit-costs')
await page.goto(`${base}/allocation/lookups?lookup=applications`)
await page.getByTestId('unknown').waitFor()
await take(page, 'lookups')
await page.goto(estimate(2))
await page.getByText('9 of 10 draws').waitFor()
await take(page, 'estimate-scenarios')
await page.goto(estimate(1))
await page.locator('.cell').first().click()
await take(page, 'estimate')
await page.goto(`${base}/estimates`)
await take(page, 'estimates')
await page.goto(`${base}/estimates/finder`)
await page.getByText('sizes fit').waitFor()
await take(page, 'finder')
await page.goto(`${base}/estimates/rate-cards`)
await page.getByRole('button', { name: 'Fetch it now' }).click()
await page.getByRole('heading', { name: 'What changes' }).waitFor()
await take(page, 'rate-cards')
const link = await (
  await page.request.post(`${base}/api/v1/estimates/${estimate(5).split('/').at(-1)}/links`, {
    data: { version: 1, audience: 'customer', expiresOn: new Date(Date.now() + 365 * 86_400_000).toISOString().slice(0, 10) },
  })
).json()
await page.goto(base + link.path)
await page.getByRole('heading', { level: 1 }).waitFor()
await take(page, 'shared-page')
await page.goto(`${base}/savings`)
await page.getByRole('button', { name: 'Storage warmer than its use' }).click()
await page.getByRole('button', { name: /^lake-raw asks/ }).click()
await take(page, 'savings')
await page.goto(`${base}/savings/otherwise?provider=Brackwater%20Cloud&sku=BW-LOWCOAST-SERVERHOUR-HERON8X64&way=variant%2Fotter-8x32`)
await page.getByRole('complementary', { name: 'otter-8x32' }).waitFor()
await take(page, 'otherwise')
await page.goto(`${base}/savings/orders`)
await page.getByRole('button', { name: 'Owner from whoever made it' }).click()
await page.getByRole('button', { name: 'Dry run', exact: true }).click()
await page.getByText('Nothing was done.').waitFor()
await take(page, 'standing-orders')
await page.goto(`${base}/sources`)
await page.getByRole('button', { name: 'Brackwater Cloud' }).first().click()
await take(page, 'sources')
await page.goto(`${base}/sources/connections`)
await page.getByText('yes, it is').first().waitFor()
await take(page, 'connections')
await page.goto(`${base}/sources/invoices`)
await page.getByText('invoices agree').waitFor()
await take(page, 'invoices')
const dark = await open('dark')
await dark.goto(base + spent)
await take(dark, 'spend-dark')
await browser.close()
