// Reading the spend, by keyboard: each job from the question to the answer, or to the file that is handed over.
import { readFileSync } from 'node:fs'
import { DuckDBInstance } from '@duckdb/node-api'
import type { Download, Page } from '@playwright/test'
import ExcelJS from 'exceljs'
import Papa from 'papaparse'
import { expensiveTuesday, nightPlan, sponsorCredit } from '../../demo/planted'
import { accessible, dropFiles, expect, figure, serverLog, tabTo, settled, test, widthOf } from '../support/browser'
import { FILES } from './site'

test.use({ start: { from: 'bills', file: 'reading spend' } })

const total = async (page: Page) => figure(await page.getByTestId('total').textContent())
const still = (page: Page) => expect(page.locator('.page[aria-busy="false"]')).toBeVisible()

/** Reaches something by Tab and presses Enter. */
async function press(page: Page, target: ReturnType<Page['getByRole']>): Promise<void> {
  await tabTo(page, target)
  await page.keyboard.press('Enter')
}
/** Opens a choice of the Sentence by keyboard and takes an option by typing. */
async function choose(page: Page, control: RegExp, text: string): Promise<void> {
  await press(page, page.getByRole('button', { name: control }))
  const search = page.getByRole('combobox').last()
  await search.waitFor()
  await page.keyboard.type(text)
  await expect(page.getByRole('option').first()).toBeVisible()
  await page.keyboard.press('Enter')
}
async function saved(download: Download): Promise<string> {
  return (await download.path())!
}

test('bills of three months, rates and the account tree are there', async ({ page }) => {
  await page.goto('/sources')
  await dropFiles(
    page,
    [
      'account-tree.json',
      'exchange-rates.csv',
      ...['brackwater', 'larkfield', 'pier-house', 'fernsuite', 'mossdesk', 'lanternchart', 'payroll'].map(
        source => `${source}-2026-09.csv.gz`,
      ),
    ].map(f => `${FILES}/${f}`),
    '.droparea',
  )
  await expect(page.getByText('account tree of 12 accounts')).toBeVisible()
  await expect(page.getByText('24 exchange rates')).toBeVisible()
  await press(page, page.getByRole('button', { name: 'Check and load 7 deliveries' }))
  await expect(page.getByRole('heading', { level: 1 })).toContainText('from 1 Sept 2026', { timeout: 60_000 })
  await expect(page.getByTestId('loads').getByRole('button', { name: 'stop' })).toHaveCount(0, { timeout: 60_000 })
})

test('the account whose credit hides its use is found, and seen without credits', async ({ page }) => {
  await page.goto('/spend?period=last-month&by=SubAccountName')
  await press(page, page.getByRole('button', { name: /USD$/ }).first())
  await expect(page.getByTestId('total')).toContainText('$')
  await expect(page.getByText(/Credits and adjustments take .* USD off/)).toBeVisible()
  const covered = await total(page)
  await press(page, page.getByRole('button', { name: 'Look at usage alone' }))
  await expect(page.getByRole('heading', { level: 1 })).toContainText('charge category Usage')
  await expect.poll(() => total(page)).toBeGreaterThan(covered * 1.2)
  // the account that now stands out: kept by its key, then with the credit again
  const account = page.locator('.step').filter({ hasText: sponsorCredit.account })
  await tabTo(page, account)
  await page.keyboard.press('k')
  await expect(page.getByRole('heading', { level: 1 })).toContainText(`sub account ${sponsorCredit.account}`)
  await still(page)
  const used = await total(page)
  await press(page, page.getByRole('button', { name: 'no longer keep charge category Usage' }))
  await expect.poll(() => total(page)).toBeLessThan(used * 0.1)
  await page.goBack()
  await expect.poll(() => total(page)).toBe(used)
})

test('the one expensive Tuesday is traced from the total to the resource and its team', async ({ page }) => {
  await page.goto('/spend?period=this-month')
  await tabTo(page, page.getByRole('application', { name: /^Chart of/ }))
  await page.keyboard.press('ArrowRight')
  for (let presses = 0; presses < 10 && !(await page.locator('[aria-live="polite"]').textContent())!.includes('17 Nov'); presses++)
    await page.keyboard.press('ArrowLeft')
  await expect(page.locator('[aria-live="polite"]')).toContainText('17 Nov 2026')
  await page.keyboard.press('z')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('each hour, in 17 Nov 2026')
  await still(page)
  for (const name of [expensiveTuesday.account, 'Log search', 'searched, GB', expensiveTuesday.resource]) {
    const step = page.locator('.step').filter({ hasText: name }).last()
    await tabTo(page, step)
    await page.keyboard.press('ArrowRight')
    await expect(step).toHaveAttribute('aria-pressed', 'true')
    await still(page)
  }
  await expect(page.locator('.part').first()).toContainText('× 0.012')
  await tabTo(page, page.locator('.step').filter({ hasText: expensiveTuesday.resource }).last())
  await page.keyboard.press('o')
  await expect(page).toHaveURL(/spend\/resource/)
  await expect(page.getByRole('heading', { level: 1 })).toContainText(expensiveTuesday.resource)
  await expect(page.locator('main, .page').first()).toContainText('Log group')
  await expect(page.getByRole('row', { name: /^team/ })).toContainText('booking')
  await accessible(page)
  await press(page, page.getByRole('button', { name: 'Write a note' }))
  await page.keyboard.press('Tab')
  await tabTo(page, page.getByLabel('Note, in Markdown'))
  await page.keyboard.type('A **rehearsal**: agreed with Jon.')
  await press(page, page.getByRole('button', { name: 'Save', exact: true }))
  await expect(page.locator('.marked strong')).toHaveText('rehearsal')
  // what it used in the last whole month, as an estimate: at list it is what the bill has as list cost
  const id = new URL(page.url()).searchParams.get('id')!
  await press(page, page.getByRole('link', { name: 'Estimate from this' }))
  await press(page, page.getByRole('button', { name: 'Start with its quantities' }))
  await expect(page.getByRole('grid')).toBeVisible()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(`${expensiveTuesday.resource}, October 2026`)
  await expect(page.locator('tr:has(> [data-cell])')).toHaveCount(3)
  const estimated = figure(await page.getByTestId('estimate-total').locator('td').nth(2).textContent())
  page.once('dialog', dialog => dialog.accept())
  await page.goto(`/spend?from=2026-10-01&to=2026-11-01&cost=list&keep=${encodeURIComponent(`ResourceId=${id}`)}`)
  await still(page)
  expect(figure(await page.getByTestId('total').textContent())).toBeCloseTo(estimated, 1)
})

test('the gateway left behind is found by what is charged for merely existing', async ({ page }) => {
  await page.goto('/spend?period=last-month')
  await choose(page, /^split by:/, 'resource')
  await expect(page).toHaveURL(/by=ResourceId/)
  await expect(page.getByRole('combobox')).toHaveCount(0) // in a field the key would be a letter
  await still(page)
  await page.keyboard.press('/')
  await page.getByRole('combobox').waitFor()
  await page.keyboard.type('service')
  await page.keyboard.press('Enter')
  await page.getByRole('option', { name: /^Servers/ }).waitFor()
  await page.keyboard.type('Gateways')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('service Gateways')
  await choose(page, /^across the table/, 'charged for')
  await expect(page.getByRole('columnheader', { name: 'existing' })).toBeVisible()
  const row = (name: string) => page.getByRole('region', { name: 'All values' }).getByRole('row').filter({ hasText: name })
  const heads = await page.getByRole('region', { name: 'All values' }).locator('th.n').allTextContents()
  const column = async (name: string, head: string) =>
    figure(
      await row(name)
        .locator('td.n')
        .nth(heads.findIndex(text => text.trim() === head))
        .textContent(),
    )
  const use = (name: string) => column(name, 'use')
  expect(await use('gw-sandbox-trial')).toBe(0)
  expect(await use('gw-old-build-net')).toBe(0)
  expect(await use('gw-live-passenger-low-coast')).toBeGreaterThan(50)
  expect(await column('gw-sandbox-trial', 'existing')).toBeGreaterThan(20)
  await accessible(page)
})

test('a machine that was to stand still at night is found by name; its page says what its cloud refuses, and why', async ({ page }) => {
  const name = `${nightPlan.namesBegin}01`
  await page.goto('/spend')
  await still(page)
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox').waitFor()
  await page.keyboard.type(name)
  await expect(page.getByRole('option').first()).toContainText(name)
  await page
    .getByRole('option', { name: new RegExp(`^${name}(?!-)`) })
    .first()
    .waitFor()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1 })).toContainText(name)
  await expect(page.getByTestId('lock')).toContainText(
    `Locked against changes since 19 Oct 2026 by ${nightPlan.lock.by}: ${nightPlan.lock.why}`,
  )
  await expect(page.getByTestId('planned').first()).toContainText('To stop every day at 20:00')
  await expect(page.getByTestId('planned').first()).toContainText('refused: it is locked against changes')
  // the bill agrees: it never stood still
  await expect(page.getByText(/of 24 hours a day/)).toHaveCount(0)
  // a picture in a note would be fetched from whoever it names: its address is shown, to be followed or not
  const asked: string[] = []
  page.on('request', request => asked.push(request.url()))
  await page.getByRole('button', { name: 'Write a note' }).click()
  await page
    .getByLabel('Note, in Markdown')
    .fill('Stands *still* ![the plan](http://elsewhere.example/plan.png) <img src="http://elsewhere.example/other.png">')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  const note = page.locator('.marked')
  await expect(note.locator('em')).toHaveText('still')
  await expect(note.getByRole('link', { name: 'the plan (http://elsewhere.example/plan.png)' })).toHaveAttribute(
    'href',
    'http://elsewhere.example/plan.png',
  )
  await expect(note.locator('img')).toHaveCount(0)
  expect(asked.filter(url => url.includes('elsewhere'))).toEqual([])
  await accessible(page)
})

test('October against September is explained with three causes, which add up to the change', async ({ page }) => {
  await page.goto('/spend?period=last-month')
  await press(page, page.getByRole('button', { name: 'why it moved' }))
  const comparison = page.getByRole('region', { name: 'Comparison' })
  await expect(comparison).toContainText('from September 2026 to October 2026')
  const causes = await comparison.locator('.said b').allTextContents()
  expect(causes.length).toBeGreaterThanOrEqual(3)
  const sums = await page.getByTestId('comparison-total').locator('td').allTextContents()
  const [before, now, difference, ...effects] = sums.slice(1).map(figure)
  expect(difference).toBeCloseTo(now! - before!, 2)
  expect(effects.reduce((a, b) => a + b, 0)).toBeCloseTo(difference!, 1)
  expect(causes.map(figure).reduce((a, b) => a + b, 0)).toBeCloseTo(difference!, 1)
  // the first cause has a name: its contribution opens the same menu as any value
  await tabTo(page, comparison.getByRole('button').filter({ hasText: /\w/ }).first())
  await page.keyboard.press('Enter')
  await expect(page.getByRole('menu')).toContainText('Keep')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('menu')).toHaveCount(0)
  await accessible(page)
})

test('a pivot of sub account × service × month leaves as XLSX and Parquet and sums to the bill', async ({ page }) => {
  await page.goto('/spend?cost=billed&from=2026-09-01&to=2026-11-01&each=month&by=SubAccountName')
  await choose(page, /^and split by, 2/, 'service')
  await expect(page).toHaveURL(/by=ServiceName/)
  await choose(page, /^across the table/, 'time')
  await expect(page.getByRole('columnheader', { name: 'September 2026' })).toBeVisible()
  const bill = await total(page)
  expect(figure(await page.getByTestId('table-total').locator('td.n').nth(2).textContent())).toBe(bill)
  const download = async (format: string) => {
    await press(page, page.getByRole('button', { name: 'Download' }))
    const arrives = page.waitForEvent('download')
    await press(page, page.getByRole('button', { name: format, exact: true }))
    return saved(await arrives)
  }
  const book = new ExcelJS.Workbook()
  await book.xlsx.readFile(await download('XLSX'))
  const sheet = book.worksheets[0]!
  const heads = (sheet.getRow(4).values as string[]).slice(1)
  // no charges are loaded for the months before
  expect(heads).toEqual(['sub account', 'service', '2026-09-01', '2026-10-01', 'billed, EUR', 'share', 'a day'])
  let sum = 0
  for (let i = 5; i <= sheet.rowCount; i++) sum += Number(sheet.getRow(i).getCell(5).value)
  expect(sum).toBeCloseTo(bill, 2)
  const duck = await (await DuckDBInstance.create()).connect()
  const path = await download('Parquet')
  const read = await duck.runAndReadAll(
    `select sum("billed, EUR")::double, sum("2026-09-01")::double + sum("2026-10-01")::double, count(distinct "sub account")::int from read_parquet('${path}')`,
  )
  const [whole, months, accounts] = read.getRowsJson()[0] as number[]
  expect([whole!.toFixed(2), months!.toFixed(2)]).toEqual([bill.toFixed(2), bill.toFixed(2)])
  expect(accounts).toBeGreaterThan(10)
  // the charge lines behind it, their size said first
  await press(page, page.getByRole('button', { name: 'Download' }))
  await press(page, page.getByRole('button', { name: 'the charge lines' }))
  await expect(page.getByRole('status').filter({ hasText: 'charges, about' })).toBeVisible()
  await page.keyboard.press('Escape')
})

test('a supplier’s own CSV is mapped by keyboard and loaded; its invoice is reconciled', async ({ page }) => {
  await page.goto('/sources')
  await page.locator('input[type=file]').setInputFiles(`${FILES}/quayside-net-2026-10.csv`)
  const mapping = page.getByRole('region', { name: 'Mapping' })
  await expect(mapping.getByTestId('mapped')).toContainText('2026-10-01T00:00:00Z')
  await expect(mapping.getByTestId('mapped')).toContainText('left out: Summe')
  await accessible(page, '.panel')
  await tabTo(page, mapping.getByLabel('service from'))
  await page.keyboard.type('Plan')
  await press(page, mapping.getByRole('button', { name: 'Save this mapping for quayside-net' }))
  await press(page, page.getByRole('button', { name: 'Check and load', exact: true }))
  const detail = page.getByRole('complementary', { name: 'Load' })
  await expect(detail).toContainText('equal', { timeout: 30_000 })
  await expect(detail).toContainText('Against FOCUS')
  await accessible(page)
  const csv = readFileSync(`${FILES}/quayside-net-2026-10.csv`, 'utf8')
  const exact = Number(/Summe;;;;;([\d,]+)/.exec(csv)![1]!.replace(',', '.'))
  await page.goto('/sources/invoices')
  await press(page, page.getByRole('button', { name: 'Enter an invoice' }))
  for (const [label, text] of [
    ['issuer', 'quayside-net'],
    ['invoice', 'Q-2026-10'],
    ['month', '2026-10'],
    ['total', exact.toFixed(2)],
  ] as const) {
    await tabTo(page, page.getByLabel(label, { exact: true }))
    await page.keyboard.type(text)
  }
  await press(page, page.getByRole('button', { name: 'Compare with charges' }))
  const row = page.getByTestId('invoices').getByRole('row').filter({ hasText: 'Q-2026-10' })
  await expect(row).toContainText(/equal/)
  await accessible(page)
  // the next file of the source needs no mapping any more
  await page.goto('/sources')
  await page
    .locator('input[type=file]')
    .setInputFiles({
      name: 'quayside-net-2026-11.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(csv.replaceAll('.10.2026', '.11.2026').replace(/^31\.11.*\r\n/gm, '')),
    })
  await expect(page.getByText('not FOCUS: mapped, look at it')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Check and load', exact: true })).toBeEnabled()
  await press(page, page.getByRole('button', { name: /^Do not load/ }))
})

test('all databases on one storage SKU are listed and handed over', async ({ page }) => {
  await page.goto('/spend')
  await still(page)
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox', { name: 'Jump to' }).waitFor()
  await page.keyboard.type('databasegbmonth')
  await expect(page.getByRole('option').filter({ hasText: 'BW-LOWCOAST' })).toHaveCount(1) // what the first letters found is gone
  while (!(await page.locator('#jump-found .on').textContent())?.includes('BW-LOWCOAST')) await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/spend\/of\?dimension=SkuId/)
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Managed database')
  const list = page.getByTestId('resources')
  await expect(list.getByRole('link', { name: 'booking-db', exact: true })).toBeVisible()
  const whole = figure(await page.getByTestId('of-total').textContent())
  const arrives = page.waitForEvent('download')
  await press(page, page.getByRole('button', { name: 'Download CSV' }))
  const resources = Papa.parse<Record<string, string>>(readFileSync(await saved(await arrives), 'utf8').trim(), { header: true }).data
  expect(new Set(resources.map(r => r['resource type']))).toEqual(new Set(['Database']))
  expect(resources.every(r => r['resource name'] && r['team tag'] !== undefined)).toBe(true)
  expect(resources.reduce((n, r) => n + Number(r['effective, EUR']), 0)).toBeCloseTo(whole, 1)
  await accessible(page)
})

test('sentences are kept, several are open, one is sent; tags are treated as one; every view is accessible and the log stays clean', async ({
  page,
}) => {
  await page.goto('/spend?by=SubAccountName&period=last-month')
  await still(page)
  await press(page, page.getByRole('button', { name: 'Open another' }))
  await press(page, page.getByRole('button', { name: /^period/ }))
  await press(page, page.getByRole('button', { name: 'the last 7 days' }))
  await expect(page.getByRole('group', { name: 'Open sentences' })).toContainText('the last 7 days')
  await press(page, page.getByRole('button', { name: /^effective cost by sub account, last month/ }))
  await expect(page.getByRole('heading', { level: 1 })).toContainText('October 2026')
  await press(page, page.getByRole('button', { name: 'Save this sentence' }))
  await page.getByLabel('Name', { exact: true }).fill('Accounts last month')
  await page.getByLabel('Send as a file to').fill('finance@skerry.example')
  await page.keyboard.press('Enter')
  await press(page, page.getByRole('link', { name: 'Saved' }))
  await expect(page.getByRole('link', { name: 'Accounts last month' })).toBeVisible()
  await press(page, page.getByRole('button', { name: 'Send now' }))
  await expect(page.getByText(/sent to finance@skerry.example/)).toBeVisible()
  await accessible(page)

  await press(page, page.getByRole('link', { name: 'Tags' }))
  await expect(page.getByRole('button', { name: 'team', exact: true })).toBeVisible()
  const merge = page.getByRole('button', { name: 'Treat as one: booking' })
  await press(page, merge)
  await expect(page.getByText('counts as booking').first()).toBeVisible()
  await expect(merge).toHaveCount(0)
  await accessible(page)
  for (const take of await page.getByRole('button', { name: 'undo' }).all()) await take.isVisible()
  while (await page.getByRole('button', { name: 'undo' }).count()) {
    const before = await page.getByRole('button', { name: 'undo' }).count()
    await page.getByRole('button', { name: 'undo' }).first().click()
    await expect(page.getByRole('button', { name: 'undo' })).toHaveCount(before - 1)
  }
  await expect(merge).toBeVisible()

  for (const path of [
    '/spend/commitments',
    '/spend/codes',
    '/sources/rates',
    '/spend/of?dimension=ServiceName&value=Recovery',
    '/spend?in=EUR&period=last-month&chart=multiples&by=ServiceName',
    '/spend?cost=price&by=SkuId&chart=lines',
    '/spend?cost=quantity&by=SkuMeter&chart=running',
  ]) {
    await page.goto(path)
    await settled(page)
    await accessible(page)
  }
  await page.goto('/spend/of?dimension=ServiceName&value=Recovery')
  await expect(page.getByText(/for each of 12 that it protects/)).toBeVisible()
  await page.setViewportSize({ width: 390, height: 800 })
  const asked = { measure: 'billedCost', splitBy: ['ResourceId'], grain: null, start: '2026-10-01', end: '2026-11-01', limit: 1 }
  const { rows } = (await (
    await page.request.post('/api/v1/spend/answer', { data: { ...asked, leaveOut: { ResourceId: [null] } } })
  ).json()) as { rows: { values: Record<string, string> }[] }
  const resource = `/spend/resource?id=${encodeURIComponent(rows[0]!.values.ResourceId!)}`
  const pages = ['/spend', '/spend/tags', '/spend/commitments', '/spend/codes', '/spend/saved', '/sources', '/sources/invoices', resource]
  for (const path of pages) {
    await page.goto(path)
    await settled(page)
    await expect.poll(() => widthOf(page), path).toBe(390)
  }
  expect(serverLog()).not.toMatch(/error|warn/i)
})

test('a tag is required with the values that it may have: who fails, and what of it nobody can be charged with', async ({ page }) => {
  await page.goto('/spend/tags')
  await settled(page)
  const required = page.getByRole('region', { name: 'Required tags' })
  await required.getByRole('button', { name: 'Require a tag' }).click()
  await required.getByLabel('tag', { exact: true }).fill('environment')
  await required.getByLabel('allowed values').fill('live\nbuild')
  await required.getByLabel('sub accounts').fill('rehearsal\nlive-fleet')
  await required.getByRole('button', { name: 'Save' }).click()
  const row = required.getByRole('row', { name: /^environment/ })
  await expect(row).toContainText('rehearsal, live-fleet')
  await row.getByRole('button', { name: 'environment', exact: true }).click()
  // the third name is not among those that it may have
  await expect(required.getByText(/Values not allowed: «rehearsal» [\d,]+\.\d\d/)).toBeVisible()
  const who = required.getByRole('table', { name: 'who fails' })
  await expect(who.getByRole('row').filter({ hasText: 'rehearsal' }).first()).toBeVisible()
  const failing = figure(await row.getByRole('cell').nth(3).textContent())
  const shown = await who.getByRole('row').evaluateAll(rows => rows.slice(1).map(one => one.lastElementChild!.textContent!))
  const left = await required.getByText(/more fail with less/).count()
  // each row is cut to cents
  if (!left) expect(Math.abs(shown.reduce((sum, text) => sum + figure(text), 0) - failing)).toBeLessThan(0.01 * shown.length)
  await accessible(page)
  await row.getByRole('button', { name: 'Delete environment' }).click()
  await expect(row).toHaveCount(0)
})
