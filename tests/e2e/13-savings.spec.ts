// What can be saved, by the bill alone: read, decided on, handed to owners, answered by link.
import { brackwaterInventory, larkfieldInventory } from '../../demo/inventory'
import { growingSnapshots, rehearsalZones, stoppedDatabase } from '../../demo/planted'
import { accessible, expect, lookedThrough, serverLog, settled, test } from '../support/browser'

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
  await lookedThrough(page)
  await page.getByRole('button', { name: 'Refresh' }).click()
  await expect(table.getByRole('button', { name: 'Gateways without traffic' })).toBeVisible()
  // and 3.76 of an old disk, which a newer class and less performance make cheaper each
  await expect(page.getByText(/115\.67 € not counted twice/)).toBeVisible()
  // what is measured of what the bill has: a size that carries it, with the hours that prove it
  await table.getByRole('button', { name: 'Databases larger than their use' }).click()
  await table.getByRole('button', { name: 'roster-db would do with «heron-2x16» instead of «heron-4x32»' }).click()
  const margin = page.getByRole('complementary')
  await expect(margin.getByRole('img', { name: /^processor used, highest hour of the day, 30 days: Of 4 vCPU/ })).toBeVisible()
  await expect(margin).toContainText('161.04 EUR a month')
  await margin.getByRole('button', { name: 'close' }).click()
  await table.getByRole('button', { name: 'Fees without use' }).click()
  await expect(table.getByText(/^38\.3\d, counted elsewhere$/)).toBeVisible()
  await accessible(page)
})

test('measurements are dropped as a file: what fits is taken, the rest named, and what they show is offered', async ({ page }) => {
  const machine = larkfieldInventory().find(({ name }) => name === 'demand-forecast-train-01')!
  await page.goto('/savings')
  await page.getByRole('button', { name: /How savings are found/ }).click()
  const finder = page.getByRole('region', { name: 'Ways to find savings' }).getByRole('row', { name: /Machines larger than their use/ })
  await expect(finder).toContainText(/47 not: demand-forecast-train-01, /)

  const rows = Array.from({ length: 20 * 24 }, (_, i) => {
    const time = new Date(Date.UTC(2026, 10, 4, i)).toISOString()
    return `${machine.id},cpu,%,${time},11\n${machine.id},memory,%,${time},20`
  })
  const wrong = [`${machine.id},cpu,GB,2026-11-05T00:00:00Z,1`, 'nobody-has-it,cpu,%,2026-11-05T00:00:00Z,1']
  await page.goto('/sources')
  await page
    .getByLabel('Files to load')
    .setInputFiles({
      ...{ name: 'train.csv', mimeType: 'text/csv' },
      buffer: Buffer.from(['resource,metric,unit,time,value', ...rows, ...wrong].join('\n')),
    })
  await expect(page.getByText(/measurements of 2 resources on 20 days, from 961 rows/)).toContainText(
    /1 row was refused: line 962: cpu is told in «%», not in «GB»\. 1 resource is on no bill: nobody-has-it/,
  )

  await page.goto('/savings?by=each')
  await expect(page.getByRole('button', { name: /^demand-forecast-train-01 would do with / })).toBeVisible()
  await page.getByRole('button', { name: /How savings are found/ }).click()
  await expect(finder).toContainText(/46 not: demand-forecast-train-02, /)
})

test('an opportunity has an address of its own, which opens it', async ({ page }) => {
  await page.goto('/savings?by=each')
  await settled(page)
  await page.getByRole('button', { name: 'pricing-study-db stands still and is paid for' }).click()
  await expect(page).toHaveURL(/one=stopped-still-paid/)
  const address = page.url()
  await page.getByRole('complementary').getByRole('button', { name: 'close' }).click()
  await expect(page).not.toHaveURL(/one=/)
  await page.goto(address)
  await expect(page.getByRole('complementary', { name: 'pricing-study-db stands still and is paid for' })).toContainText('Workings')
  await page.goto('/savings?one=nothing-of-the-kind')
  await expect(page.getByTestId('opportunities')).toBeVisible()
  await expect(page.getByRole('complementary')).toHaveCount(0)
})

test('a threshold is tried before it is set; an opportunity is noted, set aside and brought to the list again, by keyboard', async ({
  page,
}) => {
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
  await margin.getByLabel('Review on').fill('2999-03-01')
  await page.keyboard.press('Enter')
  await expect(margin).toContainText('the study is taken up again in spring')
  const row = page.getByTestId('opportunities').getByRole('row').filter({ hasText: stoppedDatabase.name })
  await expect(row).toHaveCount(0)
  await page.getByRole('button', { name: 'state: not done yet' }).click()
  await page.getByRole('option', { name: 'set aside' }).click()
  await expect(row).toContainText('set aside')
  await expect(page).toHaveURL(/state=aside/)
  await margin.getByRole('button', { name: 'Undo' }).click()
  await expect(row).toHaveCount(0)
})

test('the ten largest become lists for their owners, mailed; one is refused with a reason by link', async ({ page, browser, baseURL }) => {
  await page.goto('/savings?by=each&order=saving')
  const boxes = page.getByTestId('opportunities').locator('tbody input[type=checkbox]')
  for (let i = 0; i < 10; i++) await boxes.nth(i).check()
  await page.getByRole('button', { name: 'Share with owners…' }).click()
  const form = page.getByRole('group', { name: 'share with owners' })
  await form.getByLabel('Message').fill('Before the year ends, please.')
  await form.getByRole('button', { name: 'Make the lists' }).click()
  await expect(form).toContainText(/lists made: .*; .*; /)
  const lists = page.getByRole('region', { name: 'Lists shared with owners' })
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
  await runa.getByRole('button', { name: 'Withdraw' }).click()
  await expect(runa).toContainText('withdrawn')
  expect(serverLog()).toMatch(/^Listening on http:\/\/127\.0\.0\.1:\d+\n$/)
})

test('disks of an old class change it in one batch; one is locked and one fails, which is told, and the others are done', async ({
  page,
  site,
}) => {
  const old = brackwaterInventory().filter(({ use }) => use.kind === 'disk' && use.variant === 'plain, old')
  const behave = (data: object) => page.request.post(`${site.cloud}/v1/behaviour`, { data })
  await page.goto('/savings?kind=better-class&by=each&order=saving')
  const rows = page.getByTestId('opportunities').locator('tbody tr')
  await settled(page)
  const names = await rows.getByRole('button').allTextContents()
  const named = (at: number) => old.find(({ name }) => names[at]!.trim().startsWith(`${name} would`))!
  const [locked, failing] = [named(0), named(1)]
  // five are taken in a row, then it asks to wait
  await behave({ locked: [locked.id], failing: { [failing.id]: 1 }, inARow: 5 })

  await page.getByRole('checkbox', { name: 'all that are shown' }).check()
  await page.getByRole('button', { name: 'Act on them…' }).click()
  const review = page.getByRole('group', { name: 'act on them' })
  await expect(review).toContainText(`${names.length} can be done from here and save`)
  await expect(review.getByRole('listitem').filter({ hasText: locked.name })).toContainText('change its class from «plain, old» to «plain»')
  await expect(review).toContainText('It can be changed back to «plain, old».')
  await accessible(page)
  await review.getByRole('button', { name: `Approve all ${names.length} and begin` }).click()

  const became = page.getByRole('status', { name: 'what became of it' })
  await expect(became).toContainText(`Ended: ${names.length - 2} done, 2 not done.`, { timeout: 60_000 })
  await expect(became.getByRole('listitem').filter({ hasText: locked.name })).toContainText(
    'platform has locked it against changes since 24 Nov 2026: it is looked into first',
  )
  await expect(became.getByRole('listitem').filter({ hasText: failing.name })).toContainText('is being moved, try later')
  await expect(rows).toHaveCount(2)
  const there = async (id: string) =>
    ((await (await page.request.get(`${site.cloud}/v1/resources/${encodeURIComponent(id)}`)).json()) as { settings: { class: string } })
      .settings.class
  expect([await there(locked.id), await there(failing.id), await there(named(2).id)]).toEqual(['plain, old', 'plain, old', 'plain'])

  // what failed is tried once more, alone
  await behave({ locked: [], inARow: 0 })
  await became.getByRole('button', { name: 'Close' }).click()
  await page.getByRole('checkbox', { name: 'all that are shown' }).check()
  await page.getByRole('button', { name: 'Act on them…' }).click()
  await review.getByRole('button', { name: 'Approve all 2 and begin' }).click()
  await expect(became).toContainText('Ended: 2 done, 0 not done.')
  expect([await there(locked.id), await there(failing.id)]).toEqual(['plain', 'plain'])
})

test('disks are deleted after a snapshot; what somebody makes again is named in the ledger', async ({ page, site }) => {
  await page.goto('/savings?kind=unattached-disk&by=each')
  await lookedThrough(page)
  await settled(page)
  const rows = page.getByTestId('opportunities').locator('tbody tr')
  const names = ['test-rig-alder-disk-3', 'test-rig-alder-disk-4']
  for (const name of names) await rows.filter({ hasText: name }).getByRole('checkbox').check()
  await page.getByRole('button', { name: 'Act on them…' }).click()
  const review = page.getByRole('group', { name: 'act on them' })
  await expect(review.getByRole('listitem').filter({ hasText: names[1]! })).toContainText('take a snapshot of it, then delete it')
  await expect(review).toContainText('A new disk can be made of its snapshot at the provider, as long as that is kept.')
  await review.getByRole('button', { name: 'Approve all 2 and begin' }).click()
  await expect(page.getByRole('status', { name: 'what became of it' })).toContainText('Ended: 2 done, 0 not done.', { timeout: 60_000 })

  await page.request.post(`${site.cloud}/control`, { form: { again: 'yes' } })
  await page.getByRole('button', { name: 'Next week' }).click()
  const ledger = page.getByTestId('ledger')
  await expect(ledger).toContainText('may stand in the place of what is gone: 10.14 EUR until now', { timeout: 120_000 })
  await ledger.getByRole('button', { name: /^ledger grouped/ }).click()
  await page.getByRole('option', { name: 'by kind' }).click()
  const group = ledger.getByRole('row').filter({ hasText: 'Disks attached to nothing' })
  await expect(group).toContainText('1 may be back')
  await group.getByRole('button').click()
  // 900 GB of «steady» at 0.0845 a month (0.088 less four per cent), made again on the third day after: four of thirty days are charged
  const [made] = await ledger.getByText('may be back as').allInnerTexts()
  const text = made!.replace(/\s+/g, ' ')
  expect(text).toBe('may be back as test-rig-alder-disk-4 in live-fleet: 10.14 EUR since 27 Nov 2026')
  // 900 GB of snapshot at 0.047 (0.049 less four per cent), for seven of thirty days, each
  await expect(ledger.getByText('snapshot kept:').first()).toContainText('-snapshot, 9.87 EUR until now')
  await expect(ledger).toContainText('The 2 snapshots kept of what was deleted cost 19.74 EUR until now')
  await accessible(page)
  await ledger.getByRole('link', { name: 'test-rig-alder-disk-4', exact: true }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('test-rig-alder-disk-4')
})
