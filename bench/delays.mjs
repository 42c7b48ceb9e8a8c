// Loaded before the server: how late its main thread comes to what it is to do every ten milliseconds, written to a file now and then.
// SIGUSR2 begins anew: what starting took is not asked for.
import { writeFileSync } from 'node:fs'
import { isMainThread } from 'node:worker_threads'

const EVERY_MS = 10
const file = process.env.MAIN_THREAD_DELAYS
if (file && isMainThread && process.argv[1]?.endsWith('server/index.mjs')) {
  /** How often a delay was so many milliseconds, the last for all that is longer. */
  const counts = new Array(10_000).fill(0)
  let last = performance.now()
  setInterval(() => {
    const now = performance.now()
    const delay = Math.max(0, Math.round(now - last - EVERY_MS))
    // what comes late once would have come several times
    for (let late = delay; late >= 0; late -= EVERY_MS) counts[Math.min(late, counts.length - 1)]++
    last = now
  }, EVERY_MS).unref()
  process.on('SIGUSR2', () => counts.fill(0))
  const within = share => {
    const enough = counts.reduce((a, b) => a + b, 0) * share
    let sum = 0
    return counts.findIndex(count => (sum += count) >= enough)
  }
  setInterval(() => {
    const said = { half: within(0.5), '99 of 100': within(0.99), '999 of 1000': within(0.999), longest: counts.findLastIndex(n => n > 0) }
    writeFileSync(file, JSON.stringify(said))
  }, 1000).unref()
}
