// Estimates by mouse and keyboard, held against figures worked out here from the rate cards' prices: a small website from nothing to
// its documents, moves, what one types, rows that cannot be priced, filing, patterns and the finder.
import { readFileSync } from 'node:fs'
import type { Locator, Page } from '@playwright/test'
import ExcelJS from 'exceljs'
import Papa from 'papaparse'
import { newEstimate, newRow, type Estimate } from '../../core/estimate/estimate'
import { asScenario } from '../../core/estimate/scenarios/layer'
import type { PriceLine, RateCard } from '../../core/ratecard/rate-card'
import { brackwaterCard } from '../../demo/rate-cards'
import { demoPatterns } from '../../demo/reusable'
import { expect, figure, serverLog, test } from '../support/browser'
import { pdfText } from '../support/pdf-text'

test.use({ start: { from: 'bills', file: 'estimates to stand on' } })

const total = (page: Page) => page.getByTestId('estimate-total')
/** A figure of the total: upfront, monthly, effective monthly, 12 months, whole term. */
const totalOf = async (page: Page, at: number) =>
  figure(
    await total(page)
      .locator('td')
      .nth(at + 1)
      .textContent(),
  )
const rowOf = (page: Page, name: string) => page.locator('tr:has(> [data-cell])').filter({ hasText: name })

/** The first tier's price of a line of Brackwater's card. */
const price = (meter: string, variant: string | null, region = 'low-coast') =>
  Number(brackwaterCard.prices.find(p => p.meter === meter && p.variant === variant && p.region === region)!.tiers[0]!.price)
const cents = (amount: number) => Math.round(amount * 100) / 100

/** What a person does, counted: a click, a key chord or a typed text is one. */
class Actions {
  count = 0
  constructor(readonly page: Page) {}
  async click(target: Locator) {
    this.count++
    await target.click()
  }

  async key(chord: string) {
    this.count++
    await this.page.keyboard.press(chord)
  }

  async type(text: string) {
    this.count++
    await this.page.keyboard.type(text)
  }

  async choose(target: Locator, value: string) {
    this.count += 2 // opened and chosen
    await target.selectOption(await target.locator('option').filter({ hasText: value }).first().getAttribute('value'))
  }

  async download(target: Locator) {
    const [file] = await Promise.all([this.page.waitForEvent('download'), this.click(target)])
    return readFileSync(await file.path())
  }
}

/** Puts an estimate on the server and opens it. */
async function open(page: Page, estimate: Estimate): Promise<string> {
  const id = crypto.randomUUID()
  const reply = await page.request.put(`/api/v1/estimates/${id}`, { data: { basedOn: null, estimate } })
  expect(reply.ok(), await reply.text()).toBe(true)
  await page.goto(`/estimates/${id}`)
  await expect(page.getByRole('grid')).toBeVisible()
  return id
}

/**
 * A card whose two regions are unlike: west has no alder-4x16 but something no smaller, keeps the meter of the cache, and has disks of one
 * zone only.
 */
const harbourRacks = (() => {
  const line = (
    region: string,
    meter: PriceLine['meter'],
    variant: string,
    unit: PriceLine['unit'],
    amount: string,
    includes?: Record<string, string>,
  ): PriceLine => ({
    sku: `${region} ${meter} ${variant}`.replaceAll(' ', '-'),
    service: meter === 'disk-gb-month' ? 'Disks' : meter === 'server-hour' ? 'Racks' : 'Caches',
    meter,
    variant,
    region,
    unit,
    tiering: 'graduated',
    tiers: [{ from: '0', price: amount }],
    ...(includes && { includes }),
  })
  return {
    provider: 'Harbour Racks',
    currency: 'EUR',
    validFrom: '2026-01-01',
    regions: [
      { id: 'east', name: 'East', zones: 2 },
      { id: 'west', name: 'West', zones: 2 },
    ],
    serverSizes: [
      { size: 'alder-4x16', vcpu: 4, memoryGb: 16 },
      { size: 'alder-6x16', vcpu: 6, memoryGb: 16 },
      { size: 'alder-8x12', vcpu: 8, memoryGb: 12 },
    ],
    prices: [
      line('east', 'server-hour', 'alder-4x16', 'Hours', '1'),
      line('west', 'server-hour', 'alder-6x16', 'Hours', '1.2'),
      line('west', 'server-hour', 'alder-8x12', 'Hours', '0.2'),
      line('east', 'cache-hour', '6 GB', 'Hours', '0.3'),
      line('west', 'cache-hour', '6 GB', 'Hours', '0.4'),
      line('west', 'cache-hour', '1 GB', 'Hours', '0.1'),
      line('east', 'disk-gb-month', 'double', 'GB-Months', '0.1', { zones: '2' }),
      line('west', 'disk-gb-month', 'single', 'GB-Months', '0.05', { zones: '1' }),
    ],
  } satisfies RateCard
})()

async function sheet(bytes: Buffer, name: string) {
  const book = new ExcelJS.Workbook()
  await book.xlsx.load(new Uint8Array(bytes).buffer)
  return book.getWorksheet(name)!
}
const cellValue = (value: ExcelJS.CellValue): string | number =>
  typeof value === 'object' && value !== null && 'result' in value ? Number(value.result) : (value as string | number)
/** A line of a sheet by what stands in one of its columns: numbers as they are shown. */
function lineOf(of: ExcelJS.Worksheet, column: number, text: string): (string | number)[] {
  let found: (string | number)[] | undefined
  of.eachRow(row => {
    if (!found && String(row.getCell(column).value).startsWith(text)) found = (row.values as ExcelJS.CellValue[]).map(cellValue)
  })
  return found!
}

/** What an hour costs that is committed to for a year and paid monthly. */
const yearly = (meter: string, variant: string) =>
  Number(
    brackwaterCard.prices
      .find(p => p.meter === meter && p.variant === variant && p.region === 'low-coast')!
      .commitments!.find(c => c.years === 1 && c.paid === 'paid monthly')!.hourlyPrice,
  )

test('a small website, from nothing to workbook, PDF and link, in at most forty actions', async ({ page, browser }) => {
  await page.goto('/estimates')
  const act = new Actions(page)
  await act.click(page.getByLabel('name', { exact: true }))
  await act.type('Small website')
  await act.choose(page.getByLabel(/^rate card/), 'Brackwater Cloud, 1 Nov 2025')
  await act.choose(page.getByLabel(/^region/), 'low-coast')
  await act.click(page.getByRole('button', { name: 'Start an estimate' }))
  await expect(page.getByRole('grid')).toBeVisible()
  await act.key('/')
  for (const line of [
    '2 servers 4 vCPU 16 GB',
    '100 GB disk x 2',
    'database 4x16 200 GB',
    '500 GB objects 1 M reads',
    '2 TB out',
    'logs 50 GB',
  ]) {
    await act.type(line)
    await expect(page.locator('#kind-0')).toBeVisible()
    await act.key('Enter')
  }
  await expect(page.locator('[data-cell$="-0"]')).toHaveCount(6)
  // hours × price, GB × price, thousands of reads × price; logs kept for 30 days, with the 20 metrics and 5 alarms that come by default
  const hours = (of: { server: number; database: number }) => 2 * 730 * of.server + 730 * of.database
  const rest = (at: string) =>
    2 * 100 * price('disk-gb-month', 'plain', at) +
    200 * price('database-gb-month', null, at) +
    500 * price('object-gb-month', 'ready', at) +
    1000 * price('object-read-1000', 'ready', at) +
    2000 * price('transfer-out-gb', null, at) +
    50 * price('logs-ingested-gb', null, at) +
    ((50 * 30 * 12) / 365) * price('logs-kept-gb-month', null, at) +
    20 * price('metric-month', null, at) +
    5 * price('alarm-month', null, at)
  const onDemand = (at: string) =>
    hours({ server: price('server-hour', 'teal-4x16', at), database: price('database-hour', 'otter-4x16', at) }) + rest(at)
  const month = cents(onDemand('low-coast'))
  await expect.poll(() => totalOf(page, 2)).toBe(month)
  // one year beside on-demand, and a second region
  await act.click(page.getByRole('button', { name: /^Scenarios/ }))
  await act.choose(page.getByLabel('way to pay for everything'), '1 year, paid monthly')
  await act.click(page.getByRole('button', { name: 'Add', exact: true }).first())
  await act.choose(page.getByLabel('place for everything'), 'east-delta')
  await act.click(page.getByRole('button', { name: 'Add', exact: true }).nth(1))
  const columns = [
    month,
    cents(hours({ server: yearly('server-hour', 'teal-4x16'), database: yearly('database-hour', 'otter-4x16') }) + rest('low-coast')),
    cents(onDemand('east-delta')),
  ]
  await expect
    .poll(async () => (await total(page).locator('td').allTextContents()).flatMap((text, i) => ([1, 2, 4].includes(i) ? figure(text) : [])))
    .toEqual(columns)
  await act.click(page.getByLabel('target a month'))
  await act.type('1,500')
  await act.key('Enter')
  await act.click(page.getByRole('button', { name: 'Share' }))
  // the documents follow the column that is looked at: the second region, which was added last
  const book = await act.download(page.getByRole('button', { name: /^XLSX/ }))
  const pdf = await act.download(page.getByRole('button', { name: /^PDF/ }))
  await act.click(page.getByRole('button', { name: 'Make a link' }))
  const address = await page.getByLabel('address of the link').inputValue()
  expect(act.count, 'a click, a key chord or a typed text is one').toBeLessThanOrEqual(40)

  const scenarios = await sheet(book, 'Scenarios')
  expect(['as it stands', '1 year, paid monthly', 'in east-delta'].map(name => cents(Number(lineOf(scenarios, 1, name)[4])))).toEqual(
    columns,
  )
  const lines = await sheet(book, 'Estimate')
  expect(String(lines.getCell('A2').value)).toContain('scenario in east-delta')
  expect(cents(Number(lineOf(lines, 2, 'total')[9]))).toBe(columns[2])
  const words = await pdfText(pdf)
  expect(words).toContain('Scenario: in east-delta')
  expect(words).toContain(`${columns[2]!.toFixed(2)} effective monthly, EUR`)
  expect(words).toContain(`The target is 1,500.00 a month: ${(1500 - columns[2]!).toFixed(2)} left.`)
  const guest = await browser.newPage()
  await guest.goto(address)
  await expect(guest.getByRole('heading', { level: 1 })).toHaveText('Small website')
  await expect(guest.locator('main')).toContainText('in east-delta')
  await expect(guest.locator('tr.total').first()).toContainText(columns[2]!.toFixed(2))
  await guest.close()
})

test('an estimate that is moved: what is the same there, what stands in, what is not offered, and the same in every document', async ({
  page,
  browser,
}) => {
  expect((await page.request.post('/api/v1/rate-cards', { data: harbourRacks })).ok()).toBe(true)
  const cache = harbourRacks.prices.find(p => p.region === 'east' && p.meter === 'cache-hour')!
  await open(page, {
    ...newEstimate('Moved', harbourRacks, 'east'),
    scenarios: [asScenario({ whole: { where: 'west' } }, 's1', 'to the west')],
    target: '1200',
    components: [
      newRow('server', 'Booking', 'server', { size: 'alder-4x16' }, { name: 'Counter' }),
      newRow('cache', 'Booking', 'metered', { sku: cache.sku }),
      newRow('disk', 'Booking', 'disk', { class: 'double', storageGb: '100' }),
    ],
  })
  // by hand: 730 × 1 + 730 × 0.3 + 100 × 0.1 = 959.00; in the west 730 × 1.2 + 730 × 0.4 = 1,168.00 without the disk, 219.00 more than the
  // same two rows
  await expect(total(page).locator('td').nth(1)).toHaveText('959.00')
  await expect(total(page).locator('td').nth(2)).toHaveText(/^1,168\.00\s*1 row not counted, 10\.00 in A$/)
  await expect(total(page).locator('td').nth(3)).toHaveText(/^\+219\.00\s*\+23\.1 %\s*like for like$/)
  await page
    .getByRole('columnheader', { name: /^B · to the west/ })
    .getByRole('button')
    .first()
    .click()
  await expect(rowOf(page, 'Counter')).toContainText('alder-6x16')
  await expect(
    rowOf(page, 'Counter')
      .getByTitle(/alder-4x16/)
      .first(),
  ).toBeVisible()
  await expect(rowOf(page, 'Disks')).toContainText('not offered')
  await page.getByRole('button', { name: 'Regions', exact: true }).click()
  const west = page.locator('.panel').getByRole('row', { name: /west/ })
  await expect(west).toContainText('1,168.00')
  await expect(west).toContainText('219.00')
  await expect(west).not.toContainText('✓')

  await page.getByRole('button', { name: 'Share' }).click()
  await expect(page.getByLabel('scenario of the document')).toHaveValue('s1')
  const take = async (name: RegExp) => {
    const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name }).click()])
    return readFileSync(await file.path())
  }
  const { data } = Papa.parse<string[]>((await take(/^CSV/)).toString('utf8'), { skipEmptyLines: true })
  const csv = (label: string) => data.find(line => line[1]!.startsWith(label))!
  expect(csv('Counter')[9]).toBe('876')
  expect(csv('Counter').join()).toContain('alder-4x16')
  expect(csv('Disks')[6]).toMatch(/^no: not offered there/)
  expect(csv('total')[1]).toBe('total, 1 row not counted (10.00 EUR a month as it stands)')
  expect(csv('total')[9]).toBe('1168')
  expect(csv('scenario as it stands')[9]).toBe('959')
  const book = await take(/^XLSX/)
  const lines = await sheet(book, 'Estimate')
  expect(lineOf(lines, 2, 'Counter')[9]).toBe(876)
  expect(lineOf(lines, 2, 'total, 1 row not counted')[9]).toBe(1168)
  expect(
    lineOf(await sheet(book, 'Scenarios'), 1, 'to the west')
      .slice(4, 9)
      .map(v => v ?? ''),
  ).toEqual([1168, 14_016, 14_016, 219, '1 row not counted (10.00 EUR a month as it stands)'])
  const words = await pdfText(await take(/^PDF/))
  for (const said of [
    'Scenario: to the west',
    '1 row not counted (10.00 EUR a month as it stands): the totals lack it',
    '1,168.00 effective monthly, EUR',
    'size alder-4x16 became alder-6x16',
    '876.00',
    'not counted: not offered there',
    '219.00',
  ])
    expect(words).toContain(said)
  // a total that lacks rows is not held against the target
  expect(words).not.toContain('The target is')

  const link = async (who: RegExp) => {
    await page.getByLabel(who).check()
    await page.getByRole('button', { name: 'Make a link' }).click()
    await expect(page.getByRole('button', { name: 'Make a link' })).toBeEnabled()
    return page.getByLabel('address of the link').inputValue()
  }
  const own = await link(/for our own people/)
  const guest = await browser.newPage()
  await guest.goto(own)
  await expect(guest.locator('tr.total').first()).toContainText('1,168.00')
  await expect(guest.locator('main')).toContainText('1 row is not counted, 10.00 a month as it stands')
  await expect(guest.locator('main')).toContainText('size alder-4x16 became alder-6x16')
  await expect(guest.locator('main')).toContainText('Scenario: to the west')
  await expect.poll(async () => await link(/for a customer/)).not.toBe(own)
  await guest.goto(await page.getByLabel('address of the link').inputValue())
  await expect(guest.locator('tr.total').first()).toContainText('1,168.00')
  await expect(guest.locator('main')).toContainText('1 row')
  // what it costs elsewhere, the target and the provider stay in the house
  for (const secret of ['959', '1,200', 'Harbour Racks', 'to the west']) await expect(guest.locator('main')).not.toContainText(secret)
  await guest.close()
})

test('what is shown is taken, what may be two numbers is asked, and Enter on an untouched cell changes nothing', async ({ page }) => {
  await open(page, {
    ...newEstimate('Typed', brackwaterCard, 'low-coast'),
    components: [
      newRow('s', 'a', 'server', { size: 'otter-4x16' }),
      newRow('d', 'a', 'disk', { class: 'plain', storageGb: '1500' }),
      newRow('f', 'a', 'functions', { calls: '2000000', seconds: '0.6', memoryGb: '0.5' }),
      newRow('o', 'a', 'object-storage', { storageGb: '650..895..1100', reads: '12000' }),
    ],
  })
  const before = await total(page).textContent()
  const cells = page.locator('[data-cell]')
  for (let i = 0; i < (await cells.count()); i++) {
    const cell = cells.nth(i)
    if ((await cell.getAttribute('data-cell'))!.endsWith('-0')) continue
    await cell.focus()
    await page.keyboard.press('Enter')
    if (await page.locator('.editor').count()) await page.keyboard.press('Enter')
  }
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled()
  expect(await total(page).textContent()).toBe(before)

  const amount = rowOf(page, 'Disks').locator('[data-cell$="-2"]')
  const put = async (cell: Locator, text: string) => {
    await cell.focus()
    await page.keyboard.press('Enter')
    await page.keyboard.press('Control+a')
    await page.keyboard.type(text)
    await page.keyboard.press('Enter')
  }
  // GB by hand × 0.045 × the region's factor is what the card says: the cell tells which number was taken
  for (const [text, gb] of [
    ['2,000', 2000],
    ['1 TB', 1000],
    ['0.5 TB', 500],
    ['1,500 GB', 1500],
    ['1.5 k', 1500],
    ['50,000 MB', 50],
    ['1 500', 1500],
  ] as const) {
    await put(amount, text)
    await expect(rowOf(page, 'Disks')).toContainText(cents(gb * price('disk-gb-month', 'plain')).toFixed(2))
  }
  for (const [text, said] of [
    ['1.500', 'may be 1.5 or 1,500'],
    ['10 20', 'are two numbers'],
    ['1,50', 'write 1.50'],
    ['about 3', 'is no number'],
    ['3 hours', 'GB'],
  ] as const) {
    await put(amount, text)
    await expect(page.getByRole('alert')).toContainText(said)
    await expect(total(page)).toContainText('1 row not counted')
    await page.keyboard.press('Control+z')
    await expect(page.getByRole('alert')).toHaveCount(0)
  }
  const runs = rowOf(page, 'Servers').locator('[data-cell$="-3"]')
  const hour = price('server-hour', 'otter-4x16')
  for (const [text, hours] of [
    ['5d x 10h', (50 * 730) / 168],
    ['55 %', 0.55 * 730],
    ['300', 300],
    ['always on', 730],
  ] as const) {
    await put(runs, text)
    await expect(rowOf(page, 'Servers')).toContainText(cents(hours * hour).toFixed(2))
  }
})

test('a rate that is missing is named where the row stands and given from there; pasted lines become rows', async ({ page }) => {
  const yard: RateCard = { ...harbourRacks, provider: 'Alder Yard', currency: 'SEK' }
  expect((await page.request.post('/api/v1/rate-cards', { data: yard })).ok()).toBe(true)
  const own = newEstimate('Pasted', brackwaterCard, 'low-coast')
  await open(page, {
    ...own,
    cards: [...own.cards, { provider: 'Alder Yard', date: yard.validFrom, revision: 1 }],
    components: [newRow('s', 'Yard', 'server', { size: 'alder-4x16', where: 'Alder Yard/east' })],
  })
  await expect(page.getByRole('alert')).toContainText('There is no rate from SEK to EUR')
  await expect(total(page)).toContainText('1 row not counted')
  await page.getByRole('button', { name: 'add the rate' }).press('Enter')
  await expect(page.getByLabel('rate from SEK', { exact: true })).toBeFocused()
  await page.keyboard.type('0.09')
  await page.keyboard.press('Enter')
  // 730 h × 1 SEK × 0.09
  await expect.poll(() => totalOf(page, 2)).toBe(65.7)
  await page.getByLabel('add a component').focus()
  await page.evaluate(() => {
    const data = new DataTransfer()
    data.setData('text/plain', '1 TB out\n2 x 50 GB disk\nthree wishes')
    document.activeElement!.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
  })
  await expect(page.getByText('2 rows were added. Not understood: three wishes.')).toBeVisible()
  await expect
    .poll(() => totalOf(page, 2))
    .toBe(cents(65.7 + 1000 * price('transfer-out-gb', null) + 2 * 50 * price('disk-gb-month', 'plain')))
})

test('estimates are filed, found, put away and brought back; one whose rows cannot be priced leaves the others standing', async ({
  page,
}) => {
  const refused = await open(page, {
    ...newEstimate('Lantern store', brackwaterCard, 'low-coast'),
    components: [
      newRow('s', 'a', 'server', { size: 'otter-4x16', count: '1.5' }),
      newRow('d', 'a', 'disk', { class: 'plain', storageGb: '1000' }),
    ],
  })
  await page.goto('/estimates')
  const row = page.getByRole('row', { name: /Lantern store/ })
  await expect(row).toContainText(cents(1000 * price('disk-gb-month', 'plain')).toFixed(2))
  await expect(row).toContainText('1 row not counted')
  await expect(page.getByRole('row', { name: /Small website/ }).first()).toContainText(/\d\.\d\d/)
  await row.getByLabel('folder of Lantern store').fill('Harbour, 2027')
  const filed = page.waitForResponse(reply => reply.request().method() !== 'GET' && reply.url().includes(refused))
  await page.keyboard.press('Enter')
  await filed
  await page.reload()
  await page.getByLabel('folder', { exact: true }).selectOption('Harbour, 2027')
  await expect(page.locator('tbody tr')).toHaveCount(1)
  await page.getByRole('button', { name: 'archive Lantern store' }).click()
  await expect(row).toHaveCount(0)
  await page.getByLabel(/with \d+ archived/).check()
  await page.getByLabel('search estimates').fill('lantern otter-4x16')
  await expect(row).toContainText('archived')
  const broughtBack = page.waitForResponse(reply => reply.request().method() !== 'GET' && reply.url().includes(refused))
  await page.getByRole('button', { name: 'restore Lantern store' }).click()
  await broughtBack
  await page.reload()
  await page.getByLabel('search estimates').fill('lantern')
  await expect(row).toHaveCount(1)
  await row.getByRole('link', { name: 'Lantern store' }).click()
  await expect(page).toHaveURL(new RegExp(refused))
  await expect(page.getByRole('alert')).toContainText('Count must be a whole number')
})

test('a row is named, gets a size from the finder, and a pattern is opened, changed and used', async ({ page }) => {
  const id = await open(page, {
    ...newEstimate('Named', brackwaterCard, 'low-coast'),
    components: [newRow('s', 'Web', 'server', { size: 'otter-2x8', count: '2' })],
  })
  await page.locator('[data-cell$="-0"]').first().focus()
  await page.keyboard.press('Alt+Enter')
  await page.getByRole('menuitem', { name: 'Name it…' }).press('Enter')
  await page.keyboard.type('Ticket counter')
  await page.keyboard.press('Enter')
  await expect(rowOf(page, 'Ticket counter')).toHaveCount(1)
  await page.keyboard.press('Control+s')
  await expect(page.getByText(/Saved as version 2/)).toBeVisible()
  await page.locator('[data-cell$="-0"]').first().focus()
  await page.keyboard.press('Alt+Enter')
  await page.getByRole('menuitem', { name: 'Find a size for it…' }).press('Enter')
  await expect(page.getByText('For row Ticket counter')).toBeVisible()
  await page.getByLabel('vCPU').fill('4')
  await page.getByLabel('memory, GB').fill('16')
  await page.getByLabel('architecture').selectOption('x86-64')
  const offer = page.getByRole('row', { name: /^otter-4x16 / }).first()
  await offer.getByRole('button', { name: 'use for the row' }).click()
  await expect(page).toHaveURL(new RegExp(id))
  await expect(rowOf(page, 'Ticket counter')).toContainText('otter-4x16')
  await expect(rowOf(page, 'Ticket counter')).toContainText(cents(2 * 730 * price('server-hour', 'otter-4x16')).toFixed(2))
  // it is saved: the row was filled where it stands
  await expect(page.getByText(/Saved as version 3/)).toBeVisible()

  for (const pattern of demoPatterns) await page.request.post('/api/v1/patterns', { data: pattern })
  await page.goto('/estimates/patterns')
  await page.getByRole('button', { name: 'Telemetry intake', exact: true }).click()
  const form = page.locator('td.opened form')
  await form.getByLabel('logs a month').fill('much')
  await page.keyboard.press('Tab')
  await form.getByLabel('logs a month').fill('120 GB')
  await page.keyboard.press('Tab')
  await expect(form.getByLabel('logs a month')).toHaveValue('120 GB')
  await page.getByRole('button', { name: 'Save the pattern' }).click()
  await expect(page.getByText('The pattern is saved for everyone')).toBeVisible()
  await form.getByLabel('messages a month').fill('1 million')
  await page.getByRole('button', { name: 'Start an estimate with it' }).click()
  await expect(page.getByRole('grid')).toBeVisible()
  await expect(rowOf(page, 'Functions')).toContainText('1 million')
  await expect(rowOf(page, 'Logs')).toContainText('120 GB')
  expect(serverLog()).toMatch(/^Listening on http:\/\/127\.0\.0\.1:\d+\n$/)
})
