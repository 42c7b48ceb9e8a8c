// Installs what package-lock.json names, when it is not there yet. Plain Node.
import { spawnSync } from 'node:child_process'
import { existsSync, statSync } from 'node:fs'

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
  run('npm', ['ci', '--no-audit', '--no-fund'])
}
