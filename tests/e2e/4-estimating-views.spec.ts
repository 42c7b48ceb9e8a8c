// Every view of Estimates: nothing that the accessibility guidelines object to, light and dark, and readable in a narrow window. Runs on
// what the jobs have left.
import type { SavedEstimate } from '../../shared/contracts/estimates'
import { demoEstimates } from '../../demo/estimates'
import { demoPatterns, demoUplifts } from '../../demo/reusable'
import { accessible, expect, serverLog, settled, test, widthOf } from '../support/browser'

test.use({ start: { from: 'bills', file: 'estimating views' } })

const panels = ['Scenarios', 'Ways to pay', 'Regions', 'Versions', 'Pattern', 'Note', 'Share']

test('the views of Estimates are accessible in both themes and fit a narrow window', async ({ page, browser }) => {
  for (const pattern of demoPatterns) await page.request.post('/api/v1/patterns', { data: pattern })
  for (const set of demoUplifts) await page.request.post('/api/v1/uplifts', { data: set })
  const { id, states } = demoEstimates[1]!
  await page.request.put(`/api/v1/estimates/${id}`, { data: { basedOn: null, estimate: states.at(-1)!.estimate } })
  const estimate = `/estimates/${id}`

  for (const colorScheme of ['dark', 'light'] as const) {
    await page.emulateMedia({ colorScheme })
    await page.goto(estimate)
    await expect(page.getByRole('region', { name: 'How sure' })).toContainText('9 of 10 draws')
    await expect(page.getByRole('region', { name: 'Not confirmed yet' })).toBeVisible()
    // the row opened, with every way to pay and its Workings
    await page.locator('[data-cell]').first().click()
    await expect(page.getByText('Every way to pay')).toBeVisible()
    await accessible(page)
    // dark differs in colour alone: the richest pages will do
    if (colorScheme === 'dark') continue
    for (const panel of panels) {
      await page
        .getByRole('button', { name: new RegExp(`^${panel}`) })
        .first()
        .click()
      await expect(page.locator('.panel')).toBeVisible()
      await accessible(page, '.panel')
    }
    await page.getByLabel('add a component').fill('data')
    await expect(page.getByRole('listbox', { name: 'components' })).toBeVisible()
    await accessible(page, '.adding')
    for (const view of ['/estimates', '/estimates/finder', '/estimates/patterns', '/estimates/uplifts', '/estimates/rate-cards']) {
      await page.goto(view)
      await settled(page)
      await accessible(page)
    }
  }
  const { path } = (await (
    await page.request.post(`/api/v1/estimates/${id}/links`, {
      data: { version: 1, audience: 'own', expiresOn: new Date(Date.now() + 300 * 86_400_000).toISOString().slice(0, 10) },
    })
  ).json()) as { path: string }
  const context = await browser.newContext({ baseURL: new URL(page.url()).origin })
  const guest = await context.newPage()
  await guest.goto(path)
  await expect(guest.getByRole('heading', { level: 1 })).toHaveText('Booking engine, summer 2027')
  await accessible(guest)

  for (const one of [page, guest]) await one.setViewportSize({ width: 390, height: 800 })
  expect(await widthOf(guest)).toBe(390)
  await context.close()
  for (const view of [estimate, '/estimates', '/estimates/finder', '/estimates/patterns', '/estimates/uplifts', '/estimates/rate-cards']) {
    await page.goto(view)
    await settled(page)
    await expect.poll(() => widthOf(page), view).toBe(390)
  }
  await page.goto(estimate)
  for (const panel of panels) {
    await page
      .getByRole('button', { name: new RegExp(`^${panel}`) })
      .first()
      .click()
    await expect(page.locator('.panel')).toBeVisible()
    await expect.poll(() => widthOf(page), panel).toBe(390)
  }
})

test("uplifts, patterns, the finder and the sheet's own work, by keyboard and mouse", async ({ page, expectRefusals }) => {
  const { estimates } = (await (await page.request.get('/api/v1/estimates')).json()) as { estimates: SavedEstimate[] }
  const before = estimates.length

  await test.step('a set of uplifts is made and shown where the thing is offered', async () => {
    await page.goto('/estimates/uplifts')
    await page.getByRole('button', { name: 'New set' }).click()
    await page.getByLabel('name').fill('Night watch')
    await page.getByLabel('charge', { exact: true }).fill('someone awake')
    await page.getByLabel('amount').fill('much')
    await page.getByRole('button', { name: 'Save the set' }).click()
    await expect(page.getByRole('alert')).toContainText('a number, such as 5')
    await page.getByLabel('amount').fill('9')
    await page.getByLabel('attach to').selectOption('kind load-balancer')
    await page.getByRole('button', { name: 'Attach' }).click()
    await page.getByRole('button', { name: 'Save the set' }).click()
    await expect(page.getByRole('row', { name: /Night watch/ })).toContainText('Load balancers')
  })

  await test.step("the finder's best offer becomes a row", async () => {
    await page.goto('/estimates/finder')
    await expect(page.getByText(/sizes fit/)).toBeVisible()
    await page.getByRole('button', { name: 'Why' }).click()
    await expect(page.getByText(/vCPU are too few/).first()).toBeVisible()
    await page.getByRole('button', { name: 'take', exact: true }).first().click()
    await page.getByRole('button', { name: 'Put it in' }).click()
    await expect(page.getByRole('grid')).toBeVisible()
    await expect(page.locator('[data-cell]').filter({ hasText: 'otter-6x24' }).first()).toBeVisible()
  })

  await test.step('rows: pattern, paste, select, copy down, double, merge, mute, move, undo, and two people at once', async () => {
    const total = page.getByTestId('estimate-total').locator('td').nth(3)
    await page.getByLabel('add a component').fill('web application')
    await page.getByRole('option', { name: /Web application, two zones/ }).click()
    await page.locator('.patternform').getByLabel('servers').fill('3')
    await page.getByRole('button', { name: 'Add its 6 rows' }).click()
    await expect(page.locator('[data-cell$="-0"]').filter({ hasText: 'Load balancers' })).toBeVisible()
    // its uplift is in its price
    await page.locator('[data-cell$="-0"]').filter({ hasText: 'Load balancers' }).click()
    await expect(page.locator('.opened')).toContainText('Night watch')
    await page.locator('[data-cell$="-0"]').filter({ hasText: 'Load balancers' }).click()

    await page.getByLabel('add a component').focus()
    await page.evaluate(() => {
      const data = new DataTransfer()
      data.setData('text/plain', 'Gateways\t\t200\t\t1\nGateways\t\t200\t\t1\nairship\t\t2')
      document.activeElement!.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
    })
    await expect(page.getByText('2 rows were pasted.')).toContainText('«airship»')
    await expect(page.getByText('The same component is here twice.')).toBeVisible()
    await page
      .getByRole('button', { name: /merge them/ })
      .first()
      .click()
    await expect(page.getByText('The same component is here twice.')).toHaveCount(0)
    const gateways = page.locator('tr:has(> [data-cell])').filter({ hasText: 'Gateways' })
    await expect(gateways).toHaveCount(1)
    await expect(gateways.locator('[data-cell$="-4"]')).toHaveText('2')

    const first = page.locator('tr:has(> [data-cell])').nth(0)
    const full = await total.textContent()
    await first.locator('[data-cell$="-0"]').focus()
    await page.keyboard.press('Alt+m')
    await expect(first).toContainText('muted')
    await expect(total).not.toHaveText(full!)
    await page.keyboard.press('Control+z')
    await expect(total).toHaveText(full!)
    const label = await first.textContent()
    await page.keyboard.press('Alt+ArrowDown')
    await expect(first).not.toHaveText(label!)
    await page.keyboard.press('Control+z')
    await expect(first).toHaveText(label!)
    // several rows at once: how long they run
    const runs = first.locator('[data-cell$="-3"]')
    await runs.focus()
    await page.keyboard.press('Shift+ArrowDown')
    await page.keyboard.press('Shift+ArrowDown')
    await page.keyboard.type('100')
    await page.keyboard.press('Enter')
    await expect(page.locator('[data-cell$="-3"]').filter({ hasText: '100 h' })).toHaveCount(2)

    // a part of its own, by the row's menu
    await first.locator('[data-cell$="-0"]').focus()
    await page.keyboard.press('Alt+Enter')
    await page.getByRole('menuitem', { name: 'Put it under another part…' }).press('Enter')
    await page.keyboard.type('Counting house')
    await page.keyboard.press('Enter')
    await expect(page.getByLabel('part of the workload').last()).toHaveValue('Counting house')
    await page.keyboard.press('Control+s')
    await expect(page.getByText(/Saved as version \d/)).toBeVisible()
    // somebody else saves in between: mine stays, and becomes an estimate of its own
    expectRefusals.allowed = true
    const id = /estimates\/([0-9a-f-]{36})/.exec(page.url())![1]!
    const saved = (await (await page.request.get(`/api/v1/estimates/${id}`)).json()) as SavedEstimate
    await page.request.put(`/api/v1/estimates/${id}`, { data: { basedOn: saved.version, estimate: { ...saved.estimate, name: 'theirs' } } })
    await first.locator('[data-cell$="-4"]').focus()
    await page.keyboard.type('8')
    await page.keyboard.press('Enter')
    await page.keyboard.press('Control+s')
  })
  await test.step('the conflict is told and nothing is lost', async () => {
    await expect(page.getByRole('alert').filter({ hasText: 'saved version' })).toBeVisible()
    await page.getByRole('button', { name: 'Save mine as a separate estimate' }).click()
    await expect(page.getByText(/Saved as version 1 by/)).toBeVisible()
    const now = (await (await page.request.get('/api/v1/estimates')).json()) as { estimates: SavedEstimate[] }
    expect(now.estimates.length).toBe(before + 2)
  })
  expect(serverLog()).toMatch(/^Listening on http:\/\/127\.0\.0\.1:\d+\n$/)
})
