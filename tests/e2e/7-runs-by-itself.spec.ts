// What runs by itself and what is connected, from the pages: a connection made, tested and corrected by keyboard, a folder watched, a job
// changed, paused and run.
import { mkdirSync, rmSync, utimesSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { charge, focusCsv } from '../support/charges'
import { accessible, expect, tabTo, test } from '../support/browser'

test.use({ start: { from: 'bills', file: 'runs automatically' } })

const watched = join(tmpdir(), `rain-barrel-watched-${process.pid}`)
test.beforeAll(() => {
  rmSync(watched, { recursive: true, force: true })
  mkdirSync(watched, { recursive: true })
})

const connection = (page: Page, name: string) => page.locator(`[data-connection="${name}"]`)
const job = (page: Page, about: string) => page.locator('tr[data-job]').filter({ hasText: about })

test('a connection is tested before it is kept, says what it can do, and is corrected when it does not answer', async ({
  page,
  expectRefusals,
}) => {
  expectRefusals.allowed = true
  await page.goto('/sources/connections')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('1 connection, and it answers')
  await expect(connection(page, 'brackwater')).toContainText('measurements')
  await accessible(page)
  await tabTo(page, page.getByRole('button', { name: 'Add a connection' }))
  await page.keyboard.press('Enter')
  const address = (await connection(page, 'brackwater').textContent())!.match(/http:\/\/127\.0\.0\.1:\d+/)![0]
  await page.getByLabel('name', { exact: true }).fill('constructor')
  await page.getByLabel('address').fill('http://127.0.0.1:65533')
  await tabTo(page, page.getByRole('button', { name: 'Test', exact: true }))
  await page.keyboard.press('Enter')
  await expect(page.getByRole('status').filter({ hasText: 'could not be reached' })).toBeVisible()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByRole('alert')).toContainText('The service does not answer')
  await page.getByLabel('address').fill(address)
  await page.getByLabel('secret, by reference').fill('hunter2')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByRole('alert')).toContainText('say where the secret is')
  await page.getByLabel('secret, by reference').fill('')
  await page.getByRole('button', { name: 'Test', exact: true }).click()
  await expect(page.getByRole('status').filter({ hasText: 'It answers: Brackwater Cloud' })).toBeVisible()
  await accessible(page)
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(connection(page, 'constructor')).toContainText('yes, it is')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('2 connections, and all answer')
  await connection(page, 'constructor').getByRole('button', { name: 'Delete' }).click()
  await connection(page, 'constructor').getByRole('button', { name: 'Delete' }).click()
  await expect(connection(page, 'constructor')).toHaveCount(0)
})

test('a watched folder runs by itself: run now, changed, paused, resumed; what went wrong is said', async ({ page }) => {
  await page.goto('/sources')
  await page.getByRole('button', { name: 'Watch a folder or a connection' }).click()
  await page.getByLabel('source', { exact: true }).fill('Harbour bills')
  await page.getByLabel('full path').fill(watched)
  await page.getByRole('button', { name: 'Watch it' }).click()
  await expect(page.getByRole('row', { name: /Harbour bills/ }).filter({ hasText: 'nothing new' })).toBeVisible()

  await page.getByRole('link', { name: 'Automatic jobs' }).click()
  const row = job(page, `${watched}, for Harbour bills`)
  await expect(row).toContainText('every hour')
  await expect(row).toContainText('nothing new')
  const file = `${watched}/october.csv`
  writeFileSync(file, focusCsv([charge({ BilledCost: '12.34', BillingAccountId: 'harbour' })]))
  utimesSync(file, 1, 1) // long written
  await row.getByRole('button', { name: 'Run now' }).click()
  await expect(row).toContainText('took october.csv')

  await tabTo(page, row.getByRole('button', { name: 'Change' }))
  await page.keyboard.press('Enter')
  await page.getByLabel('every').fill('2')
  await page.getByLabel('unit').selectOption('day')
  await page.getByLabel('person to tell').selectOption('Petra Holm')
  await accessible(page)
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(row).toContainText('every 2 days')
  await expect(row).toContainText('Petra Holm')
  await row.getByRole('button', { name: 'Pause' }).click()
  await expect(row).toContainText('paused')
  await row.getByRole('button', { name: 'Resume' }).click()
  await expect(row).not.toContainText('paused')

  rmSync(watched, { recursive: true })
  await row.getByRole('button', { name: 'Run now' }).click()
  await expect(row).toContainText('is not there. Create it, or name another.')
  await page.reload()
  await expect(page.getByTestId('level-strip').getByRole('link', { name: /needs? attention/ })).toHaveAttribute('href', '/sources/runs')
  await accessible(page)

  await page.getByRole('link', { name: 'Deliveries' }).click()
  await expect(page.getByTestId('loads').getByRole('row', { name: /Harbour bills/ })).toContainText('loaded')
  await page
    .getByRole('row', { name: /Harbour bills/ })
    .filter({ hasText: 'every 2 days' })
    .getByRole('button', { name: 'stop watching' })
    .click()
  await expect(page.getByRole('row', { name: /Harbour bills/ }).filter({ hasText: 'every 2 days' })).toHaveCount(0)
  await page.getByRole('link', { name: 'Automatic jobs' }).click()
  await expect(job(page, 'for Harbour bills')).toHaveCount(0)
})
