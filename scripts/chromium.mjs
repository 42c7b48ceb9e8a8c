// Which Chromium the browser tests, pictures and benches use, and how it is installed. Plain Node.
import { spawnSync } from 'node:child_process'
import { existsSync } from 'node:fs'

/** Debian's Chromium without a window does the same with a quarter less of the processor; else the whole of it does. */
const PACKAGES = ['chromium-headless-shell', 'chromium']

/**
 * Where Chromium lies: as CHROMIUM says, or the first that is there; the last place where it is looked for, if none is.
 * @returns {string}
 */
export function chromiumPath() {
  const places = PACKAGES.map(name => `/usr/bin/${name}`)
  return process.env.CHROMIUM ?? places.find(place => existsSync(place)) ?? places.at(-1)
}

/** Installs what is missing, where that may be done: the one without a window, or, where the system has none, the whole of it. */
export function installChromium() {
  const mayInstall = process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')
  if (process.env.CHROMIUM || existsSync(`/usr/bin/${PACKAGES[0]}`) || !mayInstall) return
  console.log('Installing Chromium …')
  const apt = (...args) =>
    spawnSync('apt-get', args, { stdio: 'inherit', env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } }).status === 0
  apt('update', '-qq')
  for (const name of PACKAGES) {
    if (existsSync(`/usr/bin/${name}`) || apt('install', '-y', '-qq', '--no-install-recommends', name)) return
  }
}
