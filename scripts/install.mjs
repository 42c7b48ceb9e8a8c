// Installs what package-lock.json names, when it is not there yet. Plain Node.
import { spawnSync } from 'node:child_process'
import { existsSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'

function run(command, args) {
  const { status } = spawnSync(command, args, { stdio: 'inherit', shell: process.platform === 'win32' })
  if (status !== 0) {
    console.error(`«${command} ${args.join(' ')}» failed.`)
    process.exit(status ?? 1)
  }
}

/** Runs a tool of the project's own. */
export const npx = args => run('npx', ['--no-install', ...args])

export function install() {
  const [major] = process.versions.node.split('.').map(Number)
  if (major !== 20) {
    console.error(`Rain Barrel needs Node 20 (see .nvmrc); this is ${process.version}.`)
    process.exit(1)
  }
  const mark = 'node_modules/.package-lock.json'
  if (existsSync(mark) && statSync(mark).mtimeMs >= statSync('package-lock.json').mtimeMs) return
  console.log('Installing packages …')
  const command = ['ci', '--no-audit', '--no-fund']
  if (!installsWithAddresses(command)) run('npm', command)
}

/** npm takes it in place of package-lock.json where it is there; it is never committed. */
const WITH_ADDRESSES = 'npm-shrinkwrap.json'

/**
 * The lock file names no registry, so npm would ask for the whole description of every package to learn where it lies: most of the time of
 * an install. That follows from name and version on whatever registry this machine uses: a copy of the lock file that says so stands in
 * while packages are installed. What they hold is checked by the lock file's hashes either way.
 * @returns false where that did not do.
 */
function installsWithAddresses(command) {
  try {
    const registry = spawnSync('npm', ['config', 'get', 'registry'], {
      encoding: 'utf8',
      shell: process.platform === 'win32',
    }).stdout.trim()
    const lock = JSON.parse(readFileSync('package-lock.json', 'utf8'))
    for (const [path, entry] of Object.entries(lock.packages)) {
      if (!path || entry.resolved || !entry.integrity) continue
      const name = entry.name ?? path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length)
      entry.resolved = `${registry.replace(/\/$/, '')}/${name}/-/${name.split('/').at(-1)}-${entry.version}.tgz`
    }
    writeFileSync(WITH_ADDRESSES, JSON.stringify(lock))
    return spawnSync('npm', command, { stdio: 'inherit', shell: process.platform === 'win32' }).status === 0
  } catch (error) {
    console.warn(`Addresses of packages could not be told (${error.message}); npm finds them.`)
    return false
  } finally {
    rmSync(WITH_ADDRESSES, { force: true })
  }
}
