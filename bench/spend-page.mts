// From click to painted chart, in Chromium on the running demo (or the address in RAIN_BARREL). Writes bench/results/page.json.
import { mkdirSync, writeFileSync } from 'node:fs'
import { chromium } from '@playwright/test'

const base = process.env.RAIN_BARREL ?? 'http://127.0.0.1:3000'
const views: [string, string][] = [
  ['this month by service', '/spend?by=ServiceName'],
  ['last month by sub account', '/spend?period=last-month&by=SubAccountName'],
  ['13 months by month', '/spend?period=all&each=month'],
  ['13 months by day', '/spend?period=all'],
  ['billed cost', '/spend?cost=billed'],
  ['by team tag', '/spend?by=Tags%2Fteam&period=last-30'],
  ['by resource', '/spend?by=ResourceId&period=last-month'],
  ['pivot of account, service, month', '/spend?by=SubAccountName&by=ServiceName&period=twelve-months&each=month&across=start&columns=none'],
  ['three steps', '/spend?step=SubAccountName%3Drehearsal&step=ServiceName%3DLog+search&step=SkuMeter%3Dsearched%2C+GB'],
  ['why it moved', '/spend?show=comparison&period=last-month'],
  ['everything in euro', '/spend?in=EUR&period=last-month'],
  ['unit prices', '/spend?cost=price&by=SkuId&period=last-month&each=month'],
]
const ROUNDS = 7
const median = (list: number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!

const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu'],
})
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' })
await page.addInitScript({ content: 'globalThis.__name = f => f' }) // the compiler names functions that are sent to the page
await page.goto(`${base}/spend`)
await page.getByTestId('total').waitFor()
const found = []
for (const [name, path] of views) {
  const answered: number[] = []
  const painted: number[] = []
  for (let i = 0; i < ROUNDS; i++) {
    await page.evaluate(() =>
      (window as unknown as { useNuxtApp: () => { $router: { push: (p: string) => Promise<void> } } })
        .useNuxtApp()
        .$router.push('/spend?period=last-7&by=RegionId'),
    )
    await page.waitForTimeout(350)
    const times = await page.evaluate(async to => {
      const began = performance.now()
      const busy = () => document.querySelector('.page')?.getAttribute('aria-busy') === 'true'
      let answered = 0
      const observer = new PerformanceObserver(list => {
        for (const entry of list.getEntries())
          if (entry.name.includes('/spend/'))
            answered = Math.max(answered, entry.startTime + (entry as PerformanceResourceTiming).duration - began)
      })
      observer.observe({ entryTypes: ['resource'] })
      await (window as unknown as { useNuxtApp: () => { $router: { push: (p: string) => Promise<void> } } }).useNuxtApp().$router.push(to)
      await new Promise<void>(resolve => {
        const look = () => (busy() ? requestAnimationFrame(look) : requestAnimationFrame(() => requestAnimationFrame(() => resolve())))
        requestAnimationFrame(look)
      })
      const painted = performance.now() - began
      await new Promise(resolve => setTimeout(resolve, 30))
      observer.disconnect()
      return { answered, painted }
    }, path)
    answered.push(times.answered)
    painted.push(times.painted)
  }
  found.push({ name, answered: Math.round(median(answered)), painted: Math.round(median(painted)) })
  console.log(name.padEnd(40), found.at(-1))
}
const charges = ((await (await page.request.get(`${base}/api/v1/spend/dimensions`)).json()) as { charges: number }).charges
mkdirSync('bench/results', { recursive: true })
writeFileSync('bench/results/page.json', JSON.stringify({ charges, views: found }, null, 1) + '\n')
await browser.close()
