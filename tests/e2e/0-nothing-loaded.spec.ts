// Before anything is loaded, and at addresses that lead nowhere: what is missing is said, and what to do.
import { accessible, expect, test } from '../support/browser'

test.use({ start: { from: 'nothing', file: 'nothing loaded' } })

const empty: [page: string, says: string][] = [
  ['/spend', 'Nothing is loaded yet.'],
  ['/spend/tags', 'Nothing is loaded yet.'],
  ['/spend/commitments', 'Nothing is loaded yet.'],
  ['/spend/codes', 'Nothing is loaded yet: codes come with a bill.'],
  ['/spend/of?dimension=ServiceName&value=Servers', 'Nothing is loaded yet.'],
  ['/estimates', 'No rate card is loaded.'],
  ['/estimates/finder', 'No rate card is loaded.'],
  ['/allocation', 'Nothing is loaded yet.'],
]

test('every view says that nothing is loaded, and leads to where it is brought in', async ({ page, expectRefusals }) => {
  expectRefusals.allowed = true
  for (const [path, says] of empty) {
    await page.goto(path)
    await expect(page.getByText(says).first(), path).toBeVisible()
    await expect(page.getByText('Reading'), path).toHaveCount(0)
    if (!says.includes(':'))
      await expect(page.locator('main').getByRole('link', { name: /under Sources/ }), path).toHaveAttribute('href', '/sources')
  }
})

test('an address that leads nowhere says so, and leads back', async ({ page, expectRefusals }) => {
  expectRefusals.allowed = true
  await page.goto('/spend/resource?id=vm-nobody-has')
  await expect(page.getByRole('alert')).toContainText('No charge of all that is loaded names the resource «vm-nobody-has»')
  await expect(page.getByRole('link', { name: 'See all in Spend' })).toBeVisible()
  await page.goto('/spend/resource')
  await expect(page.getByText('The address names no resource.')).toBeVisible()
  await page.goto('/estimates/nobody-made-it')
  await expect(page.getByRole('alert')).toContainText('No estimate has the id «nobody-made-it». Look for it by its name under Estimates.')
  await page.getByRole('link', { name: 'All estimates' }).click()
  await expect(page).toHaveURL('/estimates')
  await page.goto('/shared/nobody-made-it')
  await expect(page.getByText('This link does not open anything.')).toBeVisible()
  await page.goto('/nowhere')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Page not found.')
  await accessible(page)
  await page.getByRole('link', { name: 'Back to the start page' }).click()
  await expect(page).not.toHaveURL(/nowhere/)
})
