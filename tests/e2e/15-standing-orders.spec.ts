// Tidy by itself: owner tags for everything that was made last month, tried in a dry run first; what nobody can tell is asked, and the tags
// stand on the next day's bill.
import { brackwaterInventory, makerOf, runsOn } from '../../demo/inventory'
import { TODAY } from '../../demo/calendar'
import { addDays } from '../../core/time/day'
import { accessible, expect, serverLog, test } from '../support/browser'

test.use({ start: { from: 'bills', file: 'orders' } })

/** Made in October or since, told by an event, and still charged on the last day. */
const made = brackwaterInventory().filter(one => one.since >= '2026-10-01' && runsOn(one, addDays(TODAY, -1)))
const lastMonth = made.filter(one => one.since < '2026-11-01')

test('owner tags are filled for everything made last month: a dry run first, doubts asked, and the next bill shows them', async ({
  page,
  site,
}) => {
  await page.goto('/savings/orders')
  await expect(page.getByRole('heading', { name: 'No standing order yet.' })).toBeVisible()
  await page.getByRole('button', { name: 'New order…' }).click()
  const form = page.getByRole('form', { name: 'new order' })
  await form.getByLabel('Name').fill('Owner from whoever made it')
  await form.getByLabel('what it does').selectOption('sets a tag to whoever made it')
  await form.getByLabel('when it was made').selectOption('last month')
  // what does not hold is said where it is written, and nothing is lost
  const brake = form.getByLabel('and does nothing above')
  await brake.fill('many')
  await form.getByRole('button', { name: 'Save' }).click()
  await expect(form.getByRole('alert')).toContainText('does nothing above: write a whole number from 1 to 100000')
  await accessible(page)
  await brake.fill('1')
  await form.getByRole('button', { name: 'Save' }).click()

  const order = page.getByRole('region', { name: 'Owner from whoever made it' })
  await expect(order).toContainText(
    'Finds resources without the tag owner, made last month; then it sets the tag owner to whoever made it.',
  )
  await expect(order.getByRole('button', { name: 'Run now' })).toBeDisabled()
  await order.getByRole('button', { name: 'Dry run' }).click()
  const runs = page.getByRole('region', { name: 'runs' })
  const said = page.getByTestId('run-said')
  await expect(said).toContainText('It would touch 2 resources; its brake is at 1. Nothing was done.')
  const rowOf = (name: string) => runs.getByRole('row').filter({ has: page.getByRole('link', { name, exact: true }) })
  await expect(runs.getByRole('link')).toHaveText([...lastMonth.map(({ name }) => name)].sort(byOutcome))
  await expect(rowOf('load-test-2610-06-disk')).toContainText('would do: set its tag owner to «jon.aske@skerry-lines.example»')
  await expect(rowOf('trial-2610-24-disk')).toContainText('would ask')
  await rowOf('trial-2610-18-disk').getByRole('button', { name: 'Evidence' }).click()
  await expect(runs).toContainText('«SKERRY\\petra.holm» is read as petra holm: Petra Holm')
  await expect(runs).toContainText('"actor":"SKERRY\\\\petra.holm"')
  const ownerAtCloud = async (name: string) => {
    const { id } = made.find(one => one.name === name)!
    const reply = await page.request.get(`${site.cloud}/v1/resources/${encodeURIComponent(id)}`)
    return ((await reply.json()) as { tags?: Record<string, string> }).tags?.owner
  }
  expect(await Promise.all(lastMonth.map(({ name }) => ownerAtCloud(name)))).toEqual(lastMonth.map(() => undefined))
  await accessible(page)

  // it may touch more; as another order it has to be tried anew
  await order.getByRole('button', { name: 'Change' }).click()
  await page.getByRole('form', { name: 'change the order' }).getByLabel('and does nothing above').fill('40')
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(order).toContainText('This version has not been tried.')
  await order.getByRole('button', { name: 'Dry run' }).press('Enter')
  await expect(said).toContainText(`Would do 2 of ${lastMonth.length} things found. Nothing was done.`)
  await order.getByRole('button', { name: 'Run now' }).press('Space')
  await expect(said).toContainText(`${lastMonth.length} things found: `)
  await expect(said).toContainText('2 done')
  await expect(said).toContainText(`${lastMonth.length - 2} asked`)

  // what is not certain is chosen: the one who may be meant, and somebody for what a machine has made
  await rowOf('trial-2610-24-disk').getByRole('button', { name: 'Mikal Brenne' }).click()
  await expect(rowOf('trial-2610-24-disk')).toContainText('done: set its tag owner to «mikal.brenne@skerry-lines.example»')
  for (const { name } of lastMonth.filter(one => makerOf(one) === 'release pipeline')) {
    await rowOf(name).getByRole('button', { name: 'somebody else' }).click()
    await page.getByRole('option', { name: 'Siri Vaage' }).click()
    await expect(rowOf(name)).toContainText('chosen by')
  }
  const mail = (person: string) => `${person}@skerry-lines.example`
  const owners = Object.fromEntries(await Promise.all(lastMonth.map(async ({ name }) => [name, await ownerAtCloud(name)] as const)))
  expect(owners).toEqual({
    'trial-2610-18-disk': mail('petra.holm'),
    'trial-2610-24-disk': mail('mikal.brenne'),
    'pipeline-2610-12-disk': mail('siri.vaage'),
    'pipeline-2610-18-disk': mail('siri.vaage'),
    'pipeline-2610-24-disk': mail('siri.vaage'),
    'load-test-2610-06-disk': mail('jon.aske'),
  })
  // what was made before and since has none
  expect(await Promise.all(made.filter(one => !lastMonth.includes(one)).map(({ name }) => ownerAtCloud(name)))).not.toContainEqual(
    expect.any(String),
  )
  await expect(page.getByRole('list', { name: 'standing orders' })).toContainText('off')

  // two days on, the bill has them, and the order finds nothing any more
  for (let day = 0; day < 2; day++) await page.request.post(`${site.cloud}/v1/clock/next-day`)
  expect((await page.request.post('/api/v1/connections/brackwater/fetch', { data: {} })).ok()).toBe(true)
  const { id } = lastMonth.find(({ name }) => name === 'trial-2610-24-disk')!
  await expect(async () => {
    await page.goto(`/spend/resource?id=${encodeURIComponent(id)}`)
    await expect(page.getByText('mikal.brenne@skerry-lines.example').first()).toBeVisible({ timeout: 5000 })
    await expect(page.getByText('tag owner came')).toBeVisible({ timeout: 5000 })
  }).toPass({ timeout: 120_000 })
  await page.goto('/savings/orders')
  await order.getByRole('button', { name: 'Dry run' }).click()
  await expect(said).toContainText('Would do 0 of 0 things found. Nothing was done.')
  expect(serverLog()).toMatch(/^Listening on http:\/\/127\.0\.0\.1:\d+\n$/)
})

/** What wants somebody comes first, then what would be done, each by account and name. */
function byOutcome(a: string, b: string): number {
  const isCertain = (name: string) => Number(/Jon Aske|petra/.test(makerOf(made.find(one => one.name === name)!)!))
  const place = (name: string) => `${isCertain(name)} ${made.find(one => one.name === name)!.account} ${name}`
  return place(a) < place(b) ? -1 : 1
}
