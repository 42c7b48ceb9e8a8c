// What is known of the business: measures and lookups as files, reviewed before they are taken, and what one booking of two products costs.
import { readFileSync, writeFileSync } from 'node:fs'
import type { AllocationPlan } from '../../core/allocation/plan'
import { addDays, addMonths, monthEnd, monthStart } from '../../core/time/day'
import { charge, focusCsv } from '../support/charges'
import { accessible, dropFiles, expect, serverLog, settled, tabTo, test } from '../support/browser'

test.use({ start: { from: 'nothing', file: 'what one costs' } })

const months = Array.from({ length: 13 }, (_, i) => addMonths('2025-01', i))
const daysOf = (month: string) => {
  const days: string[] = []
  for (let day = monthStart(month); day < monthEnd(month); day = addDays(day, 1)) days.push(day)
  return days
}
/** Bookings a day: ever more on the desk, always as many in the app. */
const perDay = (month: string) => ({ desk: 10 + months.indexOf(month), app: 5 })
const centre = (id: string, name: string) => ({ id, name, parent: id === 'all' ? null : 'all', owner: null })
const plan: AllocationPlan = {
  centres: [centre('all', 'All'), centre('desk', 'Booking desk'), centre('app', 'Booking app')],
  pools: [{ id: 'lines', name: 'Lines', method: 'measure', measure: 'bookings' }],
  rules: [
    { id: 'desk', conditions: [{ dimension: 'Tags/team', values: ['desk'] }], target: 'desk' },
    { id: 'app', conditions: [{ dimension: 'Lookup/products/team', values: ['app'] }], target: 'app' },
    { id: 'lines', conditions: [{ dimension: 'ServiceName', values: ['Lines'] }], target: 'lines' },
  ],
}
/** On the last day of each month: the desk costs 1,000 and 2 for each booking, the app 300, lines 130, and 7 belong to nobody. */
const bills = months.flatMap(month => {
  const last = addDays(monthEnd(month), -1)
  const line = (cost: number, more: object) =>
    charge({
      ...{ BillingPeriodStart: `${monthStart(month)}T00:00:00Z`, BillingPeriodEnd: `${monthEnd(month)}T00:00:00Z` },
      ...{ ChargePeriodStart: `${last}T00:00:00Z`, ChargePeriodEnd: `${monthEnd(month)}T00:00:00Z` },
      ...{ BilledCost: String(cost), EffectiveCost: String(cost), Tags: '', ...more },
    })
  return [
    line(1000 + 2 * perDay(month).desk * daysOf(month).length, { Tags: '{"team":"desk"}' }),
    line(300, { Tags: '{"product":"passenger-app"}' }),
    line(130, { ServiceName: 'Lines' }),
    line(7, { Tags: '{"product":"tide-tables"}' }),
  ]
})
const measures = (more: string[] = []) =>
  [
    'measure,unit,date,cost centre,value',
    ...months.flatMap(month =>
      daysOf(month).flatMap(day => [`bookings,booking,${day},desk,${perDay(month).desk}`, `bookings,booking,${day},app,5`]),
    ),
    ...more,
  ].join('\n')

test('cost per booking of two products over a year: measures are dropped, wrong rows named, changed ones reviewed', async ({
  page,
  baseURL,
}) => {
  await page.request.post('/api/v1/organisation', { data: { people: [], plan } })
  const { id } = (await (await page.request.post('/api/v1/imports?source=bill', { data: focusCsv(bills), headers: { 'content-type': 'text/csv' } })).json()) as { id: string } // prettier-ignore
  await expect
    .poll(async () => ((await (await page.request.get(`/api/v1/imports/${id}`)).json()) as { state: string }).state)
    .toBe('loaded')
  expect(baseURL).toBeTruthy()
  const drop = async (name: string, content: string) => {
    const at = test.info().outputPath(name)
    writeFileSync(at, content)
    await dropFiles(page, [at], '.droparea')
  }
  await page.goto('/allocation')
  await page.getByRole('link', { name: 'Unit costs' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('No business measures yet')
  await drop('wrong.csv', measures(['bookings,booking,2025-02-30,desk,1', 'bookings,booking,2025-02-01,desk,-4', 'bookings,booking,2025-02-01,app,5'])) // prettier-ignore
  const alert = page.getByRole('alert')
  await expect(alert).toContainText('«wrong.csv» was not taken')
  await expect(alert).toContainText('line 794: «2025-02-30» is no date')
  await expect(alert).toContainText('line 795: -4 is below zero')
  await expect(alert).toContainText(/line 796: bookings of app for 2025-02-01 is on line \d+ already/)
  await drop('bookings.csv', measures())
  await expect(page.getByText('«bookings.csv» was taken: bookings: 792 values added')).toBeVisible()

  const table = page.getByTestId('unit-costs')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('The cost of one booking by full effective cost')
  const row = (name: string) => table.getByRole('row', { name })
  // without the lookup nobody has the app's 300; 130 of lines by 155 of 465: 43.33 for 155 bookings
  await expect(row('January 2025')).toContainText('43.33')
  await page.getByRole('button', { name: 'direct or full cost' }).click()
  await page.getByRole('option', { name: /^direct/ }).click()
  // (1000 + 2 × 310) ÷ 310 and, of the last month, (1000 + 2 × 682) ÷ 682
  await expect(row('January 2025')).toContainText('5.226')
  await expect(row('January 2026')).toContainText('3.466')
  await expect(page.getByTestId('behaviour')).toContainText(
    'Booking desk: 1,000 EUR a month are fixed (1,000 to 1,000), each booking adds 2.0000',
  )
  await accessible(page)

  // a day that is told again replaces what was told, after a look at what moves
  await drop('again.csv', ['measure,unit,date,cost centre,value', 'bookings,booking,2025-01-31,app,160', 'bookings,booking,2025-01-30,app,5'].join('\n')) // prettier-ignore
  const review = page.getByRole('region', { name: 'Review of a file' })
  await expect(review.getByRole('row', { name: /^bookings/ })).toContainText('1')
  // 130 by 310 of 620 instead of by 155 of 465: 65.00 instead of 43.33
  await expect(review.getByTestId('effects')).toContainText('+21.67')
  await expect(review.getByTestId('effects')).toContainText('−21.67')
  await review.getByRole('button', { name: 'Use this file' }).click()
  await expect(page.getByText('«again.csv» was taken: bookings: 1 value changed')).toBeVisible()
  await page.getByRole('button', { name: 'direct or full cost' }).click()
  await page.getByRole('option', { name: /^full/ }).click()
  await expect(row('January 2025')).toContainText('65.00')
  // what the page gives it takes back
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'CSV', exact: true }).click()])
  await drop('same.csv', readFileSync(await download.path(), 'utf8'))
  await expect(review).toContainText('It changes nothing: all of it is there already.')
  await review.getByRole('button', { name: 'Close' }).click()
})

test('a lookup is dropped, held against the charges, changed after a look at what moves, and deleted', async ({ page }) => {
  const drop = async (name: string, content: string) => {
    const at = test.info().outputPath(name)
    writeFileSync(at, content)
    await dropFiles(page, [at], '.droparea')
  }
  await page.goto('/allocation/lookups?month=2025-12')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('No lookups yet')
  await drop('products.csv', 'Tags/product,valid from,team\npassenger-app,12.1.2025,app\n,,x\n')
  await expect(page.getByRole('alert')).toContainText(
    'line 2: «12.1.2025» is no day: write valid from like 2026-11-01; line 3: it has no Tags/product',
  )
  await drop('products.csv', 'Tags/product,match,valid from,team\npassenger-*,pattern,2025-06-01,app\nretired,,,app\n')
  await expect(page.getByText('«lookup-products.csv» was taken: lookup «products», 2 entries')).toBeVisible()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Compare products with the charges of December 2025')
  await expect(page.getByTestId('unknown').getByRole('row', { name: /tide-tables/ })).toContainText('7.00')
  await expect(page.getByTestId('unused')).toHaveText('retired')
  await settled(page)
  await accessible(page)
  // from January on instead of from June on: five months move
  await drop('products.csv', 'Tags/product,match,valid from,team\npassenger-*,pattern,2025-01-01,app\n')
  const review = page.getByRole('region', { name: 'Review of a file' })
  await expect(review).toContainText('passenger-* (pattern) from 2025-01-01')
  await expect(review).toContainText('retired')
  await expect(review.getByText('left to calculate')).toHaveCount(0)
  await expect(
    review
      .getByTestId('effects')
      .getByRole('row', { name: /^Booking app/ })
      .locator('td'),
  ).toHaveText(['Booking app', ...Array<string>(5).fill('+300.00'), 'EUR'])
  await accessible(page)
  await tabTo(page, review.getByRole('button', { name: 'Use this file' }))
  await page.keyboard.press('Enter')
  await expect(page.getByText('«lookup-products.csv» was taken: lookup «products», 1 entry')).toBeVisible()
  await expect(page.getByTestId('entries')).toContainText('1 Jan 2025')
  // the value that it does not know leads to its charges
  await page.getByTestId('unknown').getByRole('link', { name: 'tide-tables' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('tide-tables')
  await page.goBack()
  await page.getByRole('button', { name: 'Delete', exact: true }).click()
  await expect(page.getByText('Rules and pools that go by it will find nothing.')).toBeVisible()
  await page.getByRole('button', { name: 'Delete it' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('No lookups yet')
  expect(serverLog()).toMatch(/^Listening on http:\/\/127\.0\.0\.1:\d+\n$/)
})
