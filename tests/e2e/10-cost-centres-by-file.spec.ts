// Cost centres as a file: downloaded, changed beside the page, dropped again, reviewed with what moves, and taken.
import { readFileSync, writeFileSync } from 'node:fs'
import type { AllocationPlan } from '../../core/allocation/plan'
import { accessible, dropFiles, expect, figure, serverLog, test } from '../support/browser'

test.use({ start: { from: 'bills', file: 'cost centres by file' } })

test('a file of cost centres is downloaded, changed and dropped; what it changes and moves is shown before it is taken', async ({
  page,
}) => {
  await page.goto('/allocation?month=2026-10')
  await expect(page.getByTestId('proof')).toBeVisible()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Download cost centres and rules' }).click(),
  ])
  const path = await download.path()
  const file = JSON.parse(readFileSync(path, 'utf8')) as { people: object[]; plan: AllocationPlan }
  const names = new Map(file.plan.centres.map(({ id, name }) => [id, name]))

  await page.getByRole('link', { name: 'Sources', exact: true }).click()
  const drop = async (name: string, content: object | string) => {
    const at = test.info().outputPath(name)
    writeFileSync(at, typeof content === 'string' ? content : JSON.stringify(content))
    await dropFiles(page, [at], '.droparea')
  }
  const review = page.getByRole('region', { name: 'Review of cost centres' })
  await drop('same.json', readFileSync(path, 'utf8'))
  await expect(review).toContainText('It changes nothing: all of it is there already.')
  await review.getByRole('button', { name: 'Close' }).click()

  // a rule that catches something goes to another cost centre
  const at = file.plan.rules.findIndex(({ target }) => target === 'booking')
  const changed = structuredClone(file)
  changed.plan.rules[at]!.target = 'security'
  changed.plan.rules.push({ id: 'wrong', conditions: [{ dimension: 'Tags/team', values: ['x'] }], target: 'nowhere' })
  await drop('wrong.json', changed)
  const number = changed.plan.rules.length
  await expect(page.getByRole('alert')).toContainText(`plan, rules ${number}, target: there is no cost centre or pool «nowhere»`)
  await expect(review).toHaveCount(0)
  changed.plan.rules.pop()
  await drop('changed.json', changed)
  await expect(review).toContainText('beside version 1')
  await expect(review).toContainText(`→ ${names.get('security')} (target)`)
  const effects = page.getByTestId('effects')
  await expect(review.getByText('left to calculate')).toHaveCount(0)
  await expect(effects).toContainText('October 2026')
  const moved = async (name: string) =>
    figure(
      await effects
        .getByRole('row', { name: new RegExp(`^${name} .*EUR$`) })
        .locator('td')
        .nth(2)
        .textContent(),
    )
  const [from, to] = [await moved(names.get('booking')!), await moved(names.get('security')!)]
  /** What moves in October, in euro, adds up to nothing but for the cents of its rows. */
  const sum = async () => {
    const cells = await effects.getByRole('row', { name: /EUR$/ }).locator('td:nth-child(3)').allTextContents()
    expect(cells.length).toBeGreaterThan(1)
    return Math.abs(cells.map(text => (text === '–' ? 0 : figure(text))).reduce((a, b) => a + b, 0))
  }
  expect(await sum()).toBeLessThan(0.06)
  expect(from).toBeLessThan(-1)
  expect(to).toBeGreaterThan(1)
  await accessible(page)
  await review.getByRole('button', { name: 'Use this file' }).click()
  await expect(page.getByText(/«changed.json» was taken/)).toBeVisible()
  // the page that was open before knows it too
  await page.getByRole('link', { name: 'Allocation', exact: true }).click()
  await expect(page.getByText(/Rules saved by .* version 2/)).toBeVisible()
  await page.goto('/allocation?month=2026-10')
  await expect(page.getByTestId('proof')).toBeVisible()

  // a change on the page says the same of every month, before it is saved
  await page.getByRole('button', { name: `delete rule ${at + 1}`, exact: true }).click()
  await page.getByRole('button', { name: 'What moves in every month' }).click()
  await expect(page.getByText('left to calculate')).toHaveCount(0)
  await expect(effects.getByRole('row', { name: new RegExp(`^${names.get('security')} .*EUR$`) })).toBeVisible()
  expect(await moved(names.get('security')!)).toBeLessThan(-1)
  expect(await sum()).toBeLessThan(0.06)
  await accessible(page)
  await page.getByRole('button', { name: 'Discard' }).click()
  await expect(effects).toHaveCount(0)

  // rules as a table: taken back as they were, reviewed where a line is another, refused by line
  const [table] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'rules', exact: true }).click()])
  const rules = readFileSync(await table.path(), 'utf8')
  await page.getByRole('link', { name: 'Sources', exact: true }).click()
  await drop('rules.csv', rules)
  await expect(review).toContainText('It changes nothing: all of it is there already.')
  await review.getByRole('button', { name: 'Close' }).click()
  const lines = rules.trimEnd().split('\n')
  await drop('rules.csv', [...lines, 'last,nowhere,1,Tags/team,is,x,,', 'wrong,booking,1,Tags/team,equals,x,,'].join('\n'))
  await expect(page.getByRole('alert')).toContainText(`line ${lines.length + 2}: «equals» is no test`)
  await drop('rules.csv', [...lines, 'last,booking,1,Tags/team,is,x,,'].join('\n'))
  await expect(review).toContainText('team tag is x → Booking')
  await review.getByRole('button', { name: 'Discard it' }).click()
  expect(serverLog()).toMatch(/^Listening on http:\/\/127\.0\.0\.1:\d+\n$/)
})
