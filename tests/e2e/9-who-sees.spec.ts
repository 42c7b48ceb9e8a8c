// A cost centre's lead works with their part of the company, by keyboard and mouse, and comes upon nothing else.
import { expensiveTuesday } from '../../demo/planted'
import { accessible, expect, test } from '../support/browser'
import type { Page } from '@playwright/test'

test.use({ start: { from: 'bills', file: 'who sees' } })

async function workAs(page: Page, name: string) {
  await page.getByRole('button', { name: /Working as|Choose whom/ }).click()
  await page.getByRole('button', { name: new RegExp(`^✓?${name}`) }).click()
  await expect(page.getByRole('button', { name: `Working as ${name}` })).toBeVisible()
}
const centres = async (page: Page) => {
  const asked = { measure: 'billedCost', splitBy: ['CostCentre'], grain: null, start: '2026-01-01', end: '2027-01-01' }
  const { rows } = (await (await page.request.post('/api/v1/spend/answer', { data: asked })).json()) as {
    rows: { values: { CostCentre: string | null } }[]
  }
  return [...new Set(rows.map(({ values }) => values.CostCentre))].sort()
}

test('a lead reads, allocates, looks for something and hands a file over: all of it of their cost centres, and said so', async ({
  page,
  expectRefusals,
}) => {
  await page.goto('/allocation?month=2026-10&currency=EUR')
  const whole = page.getByTestId('proof')
  await expect(whole).toContainText('bill')
  const row = page.getByRole('row', { name: /^Fleet/ })
  const ofAll = (await row.textContent())!.replace(/\s*Change\s*$/, '')
  await workAs(page, 'Petra Holm')
  await expect(page.getByTestId('within')).toHaveText('Only Fleet')
  // a settled month: their statements as the company's has them, and neither rules nor the bill
  await expect(page.getByTestId('borne')).toContainText('on Fleet')
  expect(await page.getByRole('row', { name: /^Fleet/ }).textContent()).toBe(ofAll)
  await expect(page.getByTestId('proof')).toHaveCount(0)
  await expect(page.getByText('first match wins')).toHaveCount(0)
  await page.getByRole('button', { name: 'Maintenance', exact: true }).click()
  await expect(page.getByTestId('statement')).toContainText('Platform, in proportion to direct cost')
  await expect(page.getByTestId('statement')).not.toContainText('%')
  await accessible(page)
  // spend
  await page.getByRole('link', { name: 'Spend', exact: true }).click()
  await expect(page.locator('.step').first()).toBeVisible()
  expect(await centres(page)).toEqual(['crew-roster', 'maintenance', 'telemetry'])
  await expect(page.locator('.step').filter({ hasText: 'live-booking' })).toHaveCount(0)
  const notes = await page.request.post('/api/v1/spend/table', {
    data: {
      question: { measure: 'billedCost', splitBy: ['ServiceName'], grain: null, start: '2026-10-01', end: '2026-11-01' },
      ...{ format: 'csv', currency: 'EUR', part: 'notes' },
    },
  })
  expect(await notes.text()).toContain('only Fleet and what lies below')
  // nothing of others is found, by name or by address
  await page.keyboard.press('Control+k')
  await page.keyboard.type(expensiveTuesday.resource)
  await expect(page.getByRole('dialog')).toContainText('No matches')
  await page.keyboard.press('Escape')
  expectRefusals.allowed = true // what is not theirs is not there
  await page.goto(`/spend/resource?id=${encodeURIComponent(expensiveTuesday.resource)}`)
  await expect(page.getByRole('main')).toContainText('There is no such resource')
  // where charges come from
  await expect(page.getByRole('link', { name: 'Sources', exact: true })).toHaveCount(0)
  await page.goto('/sources')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Where charges come from is for those who see the whole company.')
  await accessible(page)
  await workAs(page, 'Ines Moldal')
  await expect(page.getByRole('link', { name: 'Sources', exact: true })).toBeVisible()
  await expect(page.getByTestId('within')).toHaveCount(0)
})
