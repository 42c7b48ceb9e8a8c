// Wrong input at each step: told what, where and how to mend it; nothing lost. Begins with bills, rate cards, cost centres and an estimate.
import { mkdirSync, writeFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { newEstimate, newRow } from '../../core/estimate/estimate'
import { brackwaterCard } from '../../demo/rate-cards'
import { charge, focusCsv } from '../support/charges'
import { dropFiles, expect, lookedThrough, serverLog, test } from '../support/browser'

test.use({ start: { from: 'bills', file: 'wrong input' } })

const folder = '.tests/wrong'
const file = (name: string, content: string | Buffer) => {
  mkdirSync(folder, { recursive: true })
  writeFileSync(`${folder}/${name}`, content)
  return `${folder}/${name}`
}

test('wrong input at each step', async ({ page, site, expectRefusals }) => {
  expectRefusals.allowed = true
  await test.step('Sources', async () => {
    await page.goto('/sources')
    await expect(page.getByTestId('loads')).toBeVisible()
    await dropFiles(
      page,
      [
        file(
          'wrong.csv',
          focusCsv([charge({ ProviderName: 'Wrong bill' }), charge({ ProviderName: 'Wrong bill', BilledCost: '12,50', ServiceName: '' })]),
        ),
      ],
      '.droparea',
    )
    await page.getByRole('button', { name: 'Check and load', exact: true }).click()
    const detail = page.getByRole('complementary', { name: 'Load' })
    await expect(detail).toContainText('2 errors; nothing was loaded')
    await expect(detail).toContainText('row 2, BilledCost')
    await expect(detail).toContainText('12,50')
    await expect(detail).toContainText('no thousands separator')
    await expect(page.getByRole('button', { name: 'Wrong bill' })).toHaveCount(0)
    // what is kept comes late: the source loses its name before it is there
    await page.route(
      '**/api/v1/mappings',
      async route => {
        await new Promise(resolve => setTimeout(resolve, 800))
        await route.continue()
      },
      { times: 1 },
    )
    const kept = page.waitForResponse('**/api/v1/mappings')
    await dropFiles(page, [file('notes.csv', 'a,b\n1,2\n')], '.droparea')
    await expect(page.getByLabel('Source', { exact: true })).toHaveValue('notes')
    await page.getByLabel('Source', { exact: true }).fill(' ')
    await expect(page.getByText('Name the source of each delivery.')).toBeVisible()
    await kept
    await page.getByLabel('Source', { exact: true }).fill('notes')
    // a file that is no FOCUS cannot be loaded before it is said what its columns are; what the mapping lacks is named
    await expect(page.getByText('One file is not FOCUS')).toBeVisible()
    await expect(page.getByRole('button', { name: 'Check and load', exact: true })).toBeDisabled()
    const mapping = page.getByRole('region', { name: 'Mapping' })
    await expect(mapping).toContainText('the mapping does not say when a charge was')
    await expect(mapping.getByRole('button', { name: /Save this mapping/ })).toBeDisabled()
    await page.getByRole('button', { name: 'Do not load notes.csv' }).click()
    await dropFiles(page, [file('lacking.csv', focusCsv([charge({ ProviderName: 'Lacking' })]).replace('BilledCost', 'Cost'))], '.droparea')
    await page.getByRole('button', { name: 'Check and load', exact: true }).click()
    await expect(detail).toContainText('a mandatory column is missing')
    await expect(detail).toContainText('whole file')
    await dropFiles(page, [file('cut.csv.gz', gzipSync(focusCsv([charge()])).subarray(0, 70))], '.droparea')
    await page.getByRole('button', { name: 'Check and load', exact: true }).click()
    await expect(detail).toContainText('cut short')
    await dropFiles(
      page,
      [file('broken.json', '{'), file('card.json', JSON.stringify({ provider: 'X', prices: [] })), file('odd.json', '{}')],
      '.droparea',
    )
    await expect(page.getByText('It is not a JSON document.')).toBeVisible()
    await expect(page.getByRole('alert').filter({ hasText: 'card.json' })).toContainText('currency')
    await expect(page.getByRole('alert').filter({ hasText: 'odd.json' })).toContainText('none of the JSON files that are known')
  })

  await test.step('Spend', async () => {
    await page.goto('/spend?from=2026-02-30&by=Nonsense&keep=ServiceName%3Dnowhere&cost=free')
    await expect(page.getByText('No charges in')).toBeVisible()
    await page.getByRole('button', { name: 'Clear all conditions' }).click()
    await expect(page.getByTestId('total')).toBeVisible()
    await page.getByRole('button', { name: /^period/ }).click()
    await page.getByLabel('from').fill('2026-11-20')
    await page.getByLabel('to', { exact: true }).fill('2026-11-10')
    await expect(page.getByText('The last day lies before the first.')).toBeVisible()
    await expect(page.getByRole('button', { name: 'Show', exact: true })).toBeDisabled()
    await page.keyboard.press('Escape')
    await page.goto('/spend?from=2020-01-01&to=2020-02-01')
    await expect(page.getByText('No charges in January 2020')).toBeVisible()
    await expect(page.getByText('Charges are loaded from')).toBeVisible()
  })

  await test.step('Allocation', async () => {
    await page.goto('/allocation')
    await page.getByRole('button', { name: 'Add a rule' }).click()
    await expect(page.getByRole('alert')).toContainText('name at least one value')
    await expect(page.getByRole('button', { name: 'Save the rules' })).toBeDisabled()
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect(page.getByText('nothing is saved yet')).toHaveCount(0)
    // somebody else saves in between: mine stays on the screen
    await page.getByRole('button', { name: 'move rule 2 up' }).click()
    await expect(page.getByText('nothing is saved yet')).toBeVisible()
    const { plan, version } = (await (await page.request.get('/api/v1/allocation/plan')).json()) as { plan: unknown; version: number }
    await page.request.put('/api/v1/allocation/plan', { data: { basedOn: version, plan } })
    await page.getByRole('button', { name: 'Save the rules' }).click()
    await expect(page.getByRole('alert')).toContainText('have changed meanwhile')
    await expect(page.getByText('nothing is saved yet')).toBeVisible()
    await page.getByRole('button', { name: 'Discard' }).click()
  })

  await test.step('Estimates', async () => {
    const boards = newEstimate('Pier boards, live departures', brackwaterCard, 'low-coast')
    const estimate = { ...boards, components: [newRow('s', 'Boards', 'server', { size: 'otter-6x24', count: '2' })] }
    await page.request.put('/api/v1/estimates/00000000-0000-4000-8000-000000000002', { data: { basedOn: null, estimate } })
    await page.goto('/estimates')
    await page
      .getByLabel('estimate file')
      .setInputFiles({ name: 'odd.json', mimeType: 'application/json', buffer: Buffer.from('{"name":""}') })
    await expect(page.getByRole('alert')).toContainText('«odd.json» is not an estimate')
    await page.getByRole('link', { name: 'Pier boards, live departures' }).first().click()
    const count = page.locator('.cell').nth(4)
    await count.focus()
    await page.keyboard.type('1.5')
    await page.keyboard.press('Enter')
    await expect(page.getByRole('alert')).toContainText('Count must be a whole number')
    await expect(page.getByTestId('estimate-total')).toContainText('1 row not counted')
    await page.keyboard.press('Control+z')
    await expect(page.getByRole('alert')).toHaveCount(0)
    await page.locator('.cell').nth(3).focus()
    await page.keyboard.type('900')
    await page.keyboard.press('Enter')
    await expect(page.getByRole('alert')).toContainText('must be from 0 to 730 h')
    await page.keyboard.press('Control+z')
    await page.getByLabel('target a month').fill('a lot')
    await page.keyboard.press('Tab')
    await expect(page.getByText('«a lot» is no number')).toBeVisible()
    // what is refused stays to be mended, beside why
    const margin = page.getByRole('region', { name: 'Terms' }).getByLabel('margin')
    await margin.fill('150')
    await page.keyboard.press('Tab')
    await expect(page.getByText('A percentage from 0 to 100.')).toBeVisible()
    await expect(margin).toHaveValue('150')
    await margin.fill('0')
    await page.keyboard.press('Tab')
    await expect(page.getByText('A percentage from 0 to 100.')).toHaveCount(0)
    await expect(margin).toHaveValue('0')
    await page.getByLabel('add a component').fill('spaceship')
    await expect(page.getByText('The rate cards have no price for that')).toBeVisible()
    await page.goto('/estimates/11111111-2222-3333-4444-555555555555')
    await expect(page.getByRole('alert')).toContainText('There is no such estimate')
  })

  await test.step('Savings', async () => {
    await page.goto('/savings')
    await lookedThrough(page)
    await page.getByRole('button', { name: 'Gateways without traffic' }).click()
    await page.getByRole('button', { name: 'gw-old-build-net passes nothing' }).click()
    await page.getByRole('button', { name: 'Preview' }).click()
    await expect(page.getByText('cannot be restored')).toBeVisible()
    await page.request.post(`${site.cloud}/v1/behaviour`, { data: { next: 'fail' } })
    await page.getByRole('button', { name: 'Approve and delete' }).click()
    await expect(page.getByText('Not done.')).toBeVisible()
    await expect(page.getByTestId('opportunities').getByRole('row').filter({ hasText: 'gw-old-build-net' })).toContainText(
      'last try failed',
    )
    await page
      .getByRole('button', { name: /Preview|Approve and delete/ })
      .first()
      .click()
    const again = page.getByRole('button', { name: 'Approve and delete' })
    if (await again.isVisible()) await again.click()
    await expect(page.getByRole('complementary')).toContainText('deleted at')
    await expect(page.getByTestId('opportunities').getByRole('row').filter({ hasText: 'gw-old-build-net' })).toHaveCount(0)
  })

  expect(serverLog()).toMatch(/^Listening on http:\/\/127\.0\.0\.1:\d+\n$/)
})
