// Two sources deliver the same account: what meets is pointed out, chosen, taken back and brought forth; a source is deleted whole.
import type { Page } from '@playwright/test'
import { charge, focusCsv } from '../support/charges'
import type { FileCharge } from '../../demo/focus-file'
import { accessible, expect, serverLog, test } from '../support/browser'

test.use({ start: { from: 'bills', file: 'deliveries that meet' } })

const account = 'meeting-account'
const bill = (day: string, BilledCost: string, more: FileCharge = {}) =>
  charge({
    BillingAccountId: account,
    BilledCost,
    ChargePeriodStart: `2026-10-${day}T00:00:00Z`,
    ChargePeriodEnd: `2026-10-${day}T12:00:00Z`,
    ...more,
  })

async function drop(page: Page, name: string, charges: FileCharge[]) {
  await page.goto('/sources')
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: `${name}.csv`, mimeType: 'text/csv', buffer: Buffer.from(focusCsv(charges)) })
  await page.getByLabel('Source', { exact: true }).fill(name)
  await page.getByRole('button', { name: 'Check and load' }).click()
}
const counted = async (page: Page) => {
  const asked = {
    measure: 'billedCost',
    splitBy: [],
    grain: null,
    start: '2026-10-01',
    end: '2026-11-01',
    keep: { BillingAccountId: [account] },
  }
  const { totals } = (await (await page.request.post('/api/v1/spend/answer', { data: asked })).json()) as { totals: { amount: string }[] }
  return totals.map(({ amount }) => amount)
}
const load = (page: Page) => page.getByRole('complementary', { name: 'Load' })

test('what meets waits, is chosen, undone and loaded again; nothing is emptied without asking; a source is deleted and comes back', async ({
  page,
}) => {
  await drop(page, 'Meeting one', [bill('01', '100'), bill('02', '100')])
  await expect(load(page)).toContainText('Files against the database')
  await expect.poll(() => counted(page)).toEqual(['200'])
  // a day apart, and the same account all the same
  await drop(page, 'Meeting two', [
    bill('02', '30', { BillingPeriodStart: '2026-10-02T00:00:00Z' }),
    bill('09', '30', { BillingPeriodStart: '2026-10-02T00:00:00Z' }),
  ])
  await expect(load(page)).toContainText('Meeting one counts for meeting-account from 1 Oct 2026')
  await expect(load(page)).toContainText('With Meeting two there would be no charges on 1 Oct 2026')
  await expect(load(page)).toContainText('Without this delivery there are none on 9 Oct 2026')
  await expect(page.getByRole('button', { name: 'Both count' })).toHaveCount(0)
  expect(await counted(page)).toEqual(['200'])
  await accessible(page)
  await page.getByRole('button', { name: 'Use this delivery instead of Meeting one' }).click()
  await expect(load(page)).toContainText('Loaded in place of Meeting one')
  expect(await counted(page)).toEqual(['60'])
  await page.getByRole('button', { name: 'Undo this load' }).click()
  await expect(load(page)).toContainText('What was loaded before counts again')
  expect(await counted(page)).toEqual(['200'])
  await page.getByRole('button', { name: 'Load it again' }).click()
  await expect(load(page)).toContainText('Loaded again by')
  expect(await counted(page)).toEqual(['60'])
  // deleted whole, and back
  const row = page.getByTestId('sources').getByRole('row', { name: /Meeting two/ })
  await row.getByRole('button', { name: 'delete all of Meeting two' }).click()
  await row.getByRole('button', { name: /^All 1 period/ }).click()
  await expect(row).toHaveCount(0)
  expect(await counted(page)).toEqual([])
  await page.getByRole('button', { name: 'Undo this load' }).click()
  await expect(row).toHaveCount(1)
  expect(await counted(page)).toEqual(['60'])
  // the first load of a period is taken back only when one is asked
  await drop(page, 'Meeting three', [charge({ BillingAccountId: 'meeting-alone', BilledCost: '7' })])
  await expect(load(page)).toContainText('Files against the database')
  await page.getByRole('button', { name: 'Undo this load' }).click()
  await expect(page.getByRole('alertdialog')).toContainText('Meeting three, October 2026 would have no charges at all')
  await page.getByRole('button', { name: 'Cancel' }).click()
  await expect(load(page)).toContainText('Files against the database')
  await page.getByRole('button', { name: 'Undo this load' }).click()
  await page.getByRole('button', { name: 'Undo anyway' }).click()
  await expect(load(page)).toContainText('Undone by')
  expect(serverLog()).not.toMatch(/error|warn/i)
})

test('a Sentence says what its address does not, goes by billing period, and keeps the path of its Steps', async ({ page }) => {
  await page.goto('/spend?period=last-month&cost=billed&nonsense=1')
  await expect(page.getByTestId('ignored')).toContainText('«nonsense=1» of the address could not be read')
  await page.getByRole('button', { name: /^which periods/ }).click()
  await page.getByRole('option', { name: /by billing period/ }).click()
  await expect(page).toHaveURL(/basis=billing/)
  await page.locator('.step').first().click()
  await expect(page).toHaveURL(/step=/)
  const kept = (await page.locator('.step.chosen .name').textContent())!
  await page.keyboard.press('p')
  await expect(page).toHaveURL(new RegExp(`keep=`))
  await expect(page).not.toHaveURL(/step=/)
  await expect(page.locator('h1')).toContainText(kept)
})
