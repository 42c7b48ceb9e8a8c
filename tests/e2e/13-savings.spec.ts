// What can be saved, by the bill alone: read, decided on, handed to owners, answered by link.
import { growingSnapshots, rehearsalZones, stoppedDatabase } from '../../demo/planted'
import { accessible, expect, serverLog, settled, test } from '../support/browser'

test.use({ start: { from: 'bills', file: 'savings' } })

test('with every connector off the bill alone yields its list; each amount is counted once', async ({ page }) => {
  await page.goto('/savings')
  await settled(page)
  const table = page.getByTestId('opportunities')
  for (const kind of [
    'Fees without use',
    'Disks that outlived their machine',
    'Stopped, and still paid for',
    'Old generation',
    'Several zones outside live',
    'Storage warmer than its use',
  ])
    await expect(table.getByRole('button', { name: kind })).toBeVisible()
  // 60 days back are not on a bill of October and November: nothing is said of what grows
  await expect(table).not.toContainText(growingSnapshots.name)
  await table.getByRole('button', { name: 'Disks that outlived their machine' }).click()
  const disk = table.getByRole('row').filter({ hasText: 'trial-2610-24-disk outlived trial-2610-24' })
  // 60 GB on 7 days of October and 23 of November at 0.045, for a month of 730 hours
  await expect(disk.locator('td').nth(4)).toHaveText('2.72')
  await table.getByRole('button', { name: 'Several zones outside live' }).click()
  await expect(table.getByRole('row').filter({ hasText: 'rehearsal-booking-store-' })).toHaveCount(rehearsalZones.count)
  // what the cloud measures and what the bill says of the same gateways is one amount
  await page.getByRole('button', { name: 'Look again' }).click()
  await expect(table.getByRole('button', { name: 'Gateways without traffic' })).toBeVisible()
  await expect(page.getByText(/111\.91 € not counted twice/)).toBeVisible()
  await table.getByRole('button', { name: 'Fees without use' }).click()
  await expect(table.getByText(/^38\.3\d, counted elsewhere$/)).toBeVisible()
  await accessible(page)
})

test('a threshold is tried before it is set; an opportunity is noted, set aside and taken back, by keyboard', async ({ page }) => {
  await page.goto(`/savings?by=each`)
  await page.getByRole('button', { name: /^How savings are found|▸ How savings are found/ }).click()
  const least = page.getByRole('row', { name: /Storage warmer than its use/ }).getByLabel('saves at least')
  const headline = page.locator('.figures .big')
  const before = await headline.textContent()
  await least.fill('100')
  await least.press('Tab')
  const effect = page.getByRole('group', { name: 'other thresholds' })
  await expect(effect).toContainText('Storage warmer than its use: ')
  expect(await headline.textContent()).toBe(before)
  await effect.getByRole('button', { name: 'Save the thresholds' }).click()
  await expect(headline).not.toHaveText(before!)
  await least.fill('10')
  await least.press('Tab')
  await effect.getByRole('button', { name: 'Save the thresholds' }).click()
  await expect(headline).toHaveText(before!)

  await page.getByRole('button', { name: `${stoppedDatabase.name} stands still and is paid for` }).press('Enter')
  const margin = page.getByRole('complementary')
  await expect(margin).toContainText('Runa Torvik')
  await margin.getByRole('button', { name: 'Set aside…' }).press('Enter')
  await margin.getByLabel('Reason').fill('the study is taken up again in spring')
  await margin.getByLabel('Look again on').fill('2999-03-01')
  await page.keyboard.press('Enter')
  await expect(margin).toContainText('the study is taken up again in spring')
  const row = page.getByTestId('opportunities').getByRole('row').filter({ hasText: stoppedDatabase.name })
  await expect(row).toHaveCount(0)
  await page.getByRole('button', { name: 'state: not done yet' }).click()
  await page.getByRole('option', { name: 'set aside' }).click()
  await expect(row).toContainText('set aside')
  await expect(page).toHaveURL(/state=aside/)
  await margin.getByRole('button', { name: 'Take back' }).click()
  await expect(row).toHaveCount(0)
})

test('the ten largest become lists for their owners, mailed; one is refused with a reason by link', async ({ page, browser, baseURL }) => {
  await page.goto('/savings?by=each&order=saving')
  const boxes = page.getByTestId('opportunities').locator('tbody input[type=checkbox]')
  for (let i = 0; i < 10; i++) await boxes.nth(i).check()
  await page.getByRole('button', { name: 'Hand over…' }).click()
  const form = page.getByRole('group', { name: 'hand over' })
  await form.getByLabel('Message').fill('Before the year ends, please.')
  await form.getByRole('button', { name: 'Make the lists' }).click()
  await expect(form).toContainText(/lists made: .*; .*; /)
  const lists = page.getByRole('region', { name: 'Lists handed over' })
  const runa = lists.getByRole('row').filter({ hasText: 'Runa Torvik' })
  await expect(runa).toBeVisible()
  await expect(async () => {
    await page.reload()
    await expect(lists.getByRole('row').filter({ hasText: 'sent' })).not.toHaveCount(0, { timeout: 2000 })
    await expect(lists.getByRole('row').filter({ hasText: 'sending' })).toHaveCount(0, { timeout: 100 })
  }).toPass()
  expect(await lists.getByRole('row').filter({ hasText: 'sent' }).count()).toBeGreaterThanOrEqual(3)
  await expect(runa).toContainText('0 agreed, 0 refused')
  await runa.getByRole('button', { name: 'Link' }).click()
  const address = await lists.getByRole('link').getAttribute('href')

  // the owner, on a machine that knows nothing of the house
  const outside = await browser.newContext({ baseURL })
  const owner = await outside.newPage()
  await owner.goto(address!)
  await expect(owner.getByRole('heading', { level: 1 })).toHaveText('What could be saved, for Runa Torvik')
  await expect(owner.getByText('Before the year ends, please.')).toBeVisible()
  await expect(owner.getByRole('navigation')).toHaveCount(0)
  const entry = owner.getByRole('region', { name: `${stoppedDatabase.name} stands still and is paid for` })
  await entry.getByRole('button', { name: 'Refuse…' }).click()
  await entry.getByLabel('Reason').fill('the study is taken up again')
  await entry.getByRole('button', { name: 'Refuse it' }).click()
  await expect(entry).toContainText('You refused: the study is taken up again')
  await owner
    .getByRole('region', { name: /^lake-raw asks for/ })
    .getByRole('button', { name: 'Agree' })
    .click()
  await expect(owner.getByRole('region', { name: /^lake-raw asks for/ })).toContainText('You agreed')
  await accessible(owner)
  await outside.close()

  await page.reload()
  await expect(runa).toContainText('1 agreed, 1 refused')
  await page.goto('/savings?by=each&state=aside')
  await expect(page.getByTestId('opportunities').getByRole('row').filter({ hasText: stoppedDatabase.name })).toContainText('set aside')
  await page.goto('/savings?by=each&state=agreed')
  await expect(page.getByTestId('opportunities').getByRole('row').filter({ hasText: 'lake-raw' })).toContainText('agreed')
  await runa.getByRole('button', { name: 'Take back' }).click()
  await expect(runa).toContainText('taken back')
  expect(serverLog()).toMatch(/^Listening on http:\/\/127\.0\.0\.1:\d+\n$/)
})
