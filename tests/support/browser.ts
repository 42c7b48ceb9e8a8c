import { readFileSync } from 'node:fs'
import AxeBuilder from '@axe-core/playwright'
import { expect, test as base, type Locator, type Page } from '@playwright/test'
import { startSite, type Site, type Start } from '../e2e/site'

let ownLog = () => ''

/**
 * A test on the site of its file (`test.use({ start })` at its beginning says what it begins with) that fails when the page writes an error
 * or a warning to the console. Refused requests are told to the person, and allowed where expected.
 */
export const test = base.extend<{ expectRefusals: { allowed: boolean }; clean: undefined }, { start: Start; site: Site }>({
  start: [
    { from: 'nothing', file: '' },
    { option: true, scope: 'worker' },
  ],
  site: [
    async ({ start }, use) => {
      const site = await startSite(start)
      ownLog = site.log
      await use(site)
      await site.stop()
    },
    { scope: 'worker', timeout: 120_000 },
  ],
  baseURL: async ({ site }, use) => use(site.base),
  // eslint-disable-next-line no-empty-pattern
  expectRefusals: async ({}, use) => {
    await use({ allowed: false })
  },
  clean: [
    async ({ page, expectRefusals }, use) => {
      const said: string[] = []
      page.on('console', message => {
        if (!['error', 'warning'].includes(message.type())) return
        if (expectRefusals.allowed && /the server responded with a status of (4|502)/.test(message.text())) return
        said.push(`${message.text()} ${message.location().url}`.trim())
      })
      page.on('pageerror', error => said.push(error.message))
      await use(undefined)
      expect(said, 'the browser console stays clean').toEqual([])
    },
    { auto: true },
  ],
})
export { expect }

/** What the server wrote since it started. */
export const serverLog = () => ownLog()

/** Drops files on the page as a person drags them from a folder. */
export async function dropFiles(page: Page, paths: string[], selector: string): Promise<void> {
  const files = paths.map(path => ({ name: path.split('/').at(-1)!, base64: readFileSync(path).toString('base64') }))
  const transfer = await page.evaluateHandle(list => {
    const data = new DataTransfer()
    for (const { name, base64 } of list) data.items.add(new File([Uint8Array.from(atob(base64), c => c.charCodeAt(0))], name))
    return data
  }, files)
  await page.dispatchEvent(selector, 'drop', { dataTransfer: transfer })
}

/** Figures as they are read from a page: `1,234.50` → 1234.5. */
export const figure = (text: string | null) => Number((text ?? '').replace(/[^\d.−-]/g, '').replace('−', '-'))

/** Presses Tab until something has the focus, as a person without a mouse does. */
export async function tabTo(page: Page, target: Locator, key: 'Tab' | 'Shift+Tab' = 'Tab'): Promise<void> {
  await target.first().waitFor()
  for (let presses = 0; presses < 400; presses++) {
    if (await target.first().evaluate(element => element === document.activeElement)) return
    await page.keyboard.press(key)
  }
  throw new Error(`Tab never reached ${target}`)
}

/** Waits until a page has its heading and reads nothing any more. */
export async function settled(page: Page) {
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await expect(page.getByText('Reading…')).toHaveCount(0)
}

/** What the guidelines (WCAG 2.2 AA, as far as a program can tell) find on the page: nothing. */
export async function accessible(page: Page, within?: string) {
  const { violations } = await (within ? new AxeBuilder({ page }).include(within) : new AxeBuilder({ page }))
    .setLegacyMode(true) // without frames nothing is to be put together on a page of its own
    .options({ resultTypes: ['violations'] })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
    .analyze()
  expect(
    violations.map(
      v =>
        `${v.id}: ${v.nodes
          .slice(0, 3)
          .map(n => n.target.join(' '))
          .join(', ')}`,
    ),
  ).toEqual([])
}

/** How wide the page is, what overflows included. */
export const widthOf = (page: Page) => page.evaluate(() => document.documentElement.scrollWidth)

/** Waits until the first look through the connections has ended: on a slow machine it takes longer than an action may. */
export const lookedThrough = (page: Page) => expect(page.getByRole('button', { name: 'Refresh' })).toBeEnabled({ timeout: 60_000 })
