// A night schedule for the rehearsal is set in one batch, and proved on the bills that follow, to the cent.
import { brackwaterInventory } from '../../demo/inventory'
import { accessible, expect, figure, lookedThrough, serverLog, settled, test } from '../support/browser'

test.use({ start: { from: 'bills', file: 'proving' } })

test('the rehearsal sleeps at night; on the next month’s bill what was promised is seen, and a day of use and a new price explain the rest', async ({
  page,
  site,
}) => {
  await page.goto('/savings?kind=can-sleep&by=each')
  await lookedThrough(page)
  const rows = page.getByTestId('opportunities').locator('tbody tr')
  const howMany = await rows.count()
  await page.getByRole('checkbox', { name: 'all that are shown' }).check()
  await page.getByRole('button', { name: 'Act on them…' }).click()
  const review = page.getByRole('group', { name: 'act on them' })
  await expect(review).toContainText(`${howMany} can be done from here and save`)
  await expect(review.getByRole('listitem').filter({ hasText: 'rehearsal-booking-db' })).toContainText(
    'stop it every week Mon, Tue, Wed, Thu 19:00 to 07:00; Fri 19:00 to Mon 07:00 (UTC), and start it after that',
  )
  await expect(review).toContainText('The hours can be removed again: it then runs all week.')
  await review.getByRole('button', { name: `Approve all ${howMany} and begin` }).click()
  const became = page.getByRole('status', { name: 'what became of it' })
  await expect(became).toContainText(`Ended: ${howMany} done, 0 not done.`, { timeout: 120_000 })

  // somebody works on a Saturday; from December on servers cost less
  const { id } = brackwaterInventory().find(({ name }) => name === 'rehearsal-booking-db')!
  await page.request.post(`${site.cloud}/v1/behaviour`, { data: { awake: { [id]: ['2026-12-05'] } } })
  await page.getByRole('button', { name: 'Next month' }).click()
  await expect(page.getByText(/November 2026 changed by .* December 2026 changed by/)).toBeVisible({ timeout: 120_000 })
  await settled(page)

  const ledger = page.getByTestId('ledger')
  await expect(ledger).toContainText('Preliminary from 1 Dec 2026 on')
  await ledger.getByRole('button', { name: 'Could sleep in hours without use' }).click()
  const promisedToSeen = async (name: string) => {
    await ledger.getByRole('button', { name, exact: true }).click()
    const table = ledger.getByRole('table', { name: 'from promised to seen' }).first()
    await expect(table).toBeVisible()
    return (await table.getByRole('row').allInnerTexts()).map(text => text.split('\t').map(cell => cell.trim()))
  }
  // 103.52 a month of 730 hours, of which 711 since 24 November, 9:00. Awake on weekdays from 7 to 19 it runs 271 of the 720 hours to
  // 23 December, not 9 + 711 × 60 / 168 of an average month: 8.07 hours at 0.2206; and on the Saturday 24 more
  expect(await promisedToSeen('rehearsal-booking-db')).toEqual([
    ['promised until now', '100.83'],
    ['planned hours of these very days, against an average month', '−1.78'],
    ['used otherwise than planned', '−5.29'],
    ['seen on the bill', '93.76 EUR'],
  ])
  // a server: 0.1033 an hour, in December 0.1012, for 17 weekdays of 12 hours
  expect(await promisedToSeen('rehearsal-passenger-app-api-02')).toEqual([
    ['promised until now', '47.22'],
    ['planned hours of these very days, against an average month', '−0.83'],
    ['another price a unit', '+0.42'],
    ['seen on the bill', '46.81 EUR'],
  ])
  // and the whole bill: what was saved, and all else it did, come to its change
  const bill = ledger.getByRole('table', { name: 'the bill in EUR' })
  await expect(bill).toContainText('saved by what was done from the ledger')
  const amounts = (await bill.getByRole('row').allInnerTexts()).map(text => Math.round(figure(text.split('\t').at(-1)!) * 100))
  expect(amounts.slice(0, -1).reduce((sum, amount) => sum + amount)).toBe(amounts.at(-1))
  await accessible(page)
  // it stands still now, and says until when
  const condition = (await (await page.request.get(`${site.cloud}/v1/resources/${encodeURIComponent(id)}`)).json()) as { plan: object[] }
  expect(condition.plan).toEqual([
    { does: 'stop', when: 'every week Mon, Tue, Wed, Thu 19:00 to 07:00; Fri 19:00 to Mon 07:00 (UTC)', last: null },
  ])
  expect(serverLog()).toMatch(/^Listening on http:\/\/127\.0\.0\.1:\d+\n$/)
})

test('what can be saved on a resource is acted on from its own page; who has locked it is said, and nothing is done', async ({
  page,
  site,
}) => {
  const disk = brackwaterInventory().find(({ name }) => name === 'data-lake-ingest-03-disk')!
  const behave = (data: object) => page.request.post(`${site.cloud}/v1/behaviour`, { data })
  await behave({ locked: [disk.id] })
  await page.goto(`/spend/resource?id=${encodeURIComponent(disk.id)}`)
  const found = page.getByRole('button', { name: 'data-lake-ingest-03-disk would have more for less as «plain»' })
  await found.click()
  const margin = page.getByRole('complementary', { name: 'data-lake-ingest-03-disk would have more for less as «plain»' })
  await margin.getByRole('button', { name: 'Preview' }).click()
  await expect(margin).toContainText('change its class from «plain, old» to «plain», at Brackwater Cloud')
  await expect(margin).toContainText('It would be left alone: platform has locked it against changes since ')
  await expect(margin.getByRole('button', { name: 'Approve and change class' })).toBeDisabled()
  await accessible(page)

  await behave({ locked: [] })
  await margin.getByRole('button', { name: 'Cancel' }).click()
  await margin.getByRole('button', { name: 'Preview' }).click()
  await expect(margin).not.toContainText('It would be left alone')
  await margin.getByRole('button', { name: 'Approve and change class' }).click()
  await expect(margin).toContainText('changed at')
  const { settings } = (await (await page.request.get(`${site.cloud}/v1/resources/${encodeURIComponent(disk.id)}`)).json()) as {
    settings: object
  }
  expect(settings).toEqual({ class: 'plain' })

  // its owner wants it back: undone from the same place, and the ledger says until when it saved
  await margin.getByRole('button', { name: 'Undo…' }).click()
  await expect(margin.getByRole('group', { name: 'undo it' })).toContainText('It would change its class from «plain» to «plain, old»')
  await margin.getByRole('button', { name: 'Undo it' }).click()
  await expect(margin.getByRole('group', { name: 'undo it' })).toHaveCount(0)
  const now = await page.request.get(`${site.cloud}/v1/resources/${encodeURIComponent(disk.id)}`)
  expect(((await now.json()) as { settings: object }).settings).toEqual({ class: 'plain, old' })
  await page.goto('/savings')
  const ledger = page.getByTestId('ledger')
  await ledger.getByRole('button', { name: /^ledger grouped/ }).click()
  await page.getByRole('option', { name: 'one by one' }).click()
  await expect(ledger.getByRole('row').filter({ hasText: 'data-lake-ingest-03-disk' })).toContainText('undone')
})
