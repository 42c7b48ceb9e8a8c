// `npm test`: installs what is missing, then runs every check, and ends with one line that counts them. Plain Node.
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { dirname } from 'node:path'
import { fileURLToPath } from 'node:url'
import { install } from './install.mjs'

process.chdir(dirname(dirname(fileURLToPath(import.meta.url))))
install()

const chromium = process.env.CHROMIUM ?? '/usr/bin/chromium'
if (!existsSync(chromium)) {
  const mayInstall = process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')
  if (mayInstall) {
    console.log('Installing Chromium …')
    spawnSync('apt-get', ['update', '-qq'], { stdio: 'inherit' })
    spawnSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], {
      stdio: 'inherit',
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    })
  }
  if (!existsSync(chromium)) {
    console.error(`The browser tests need Chromium at ${chromium}: «apt-get install chromium» as root, or set CHROMIUM to its path.`)
    process.exit(1)
  }
}

rmSync('.tests', { recursive: true, force: true })
mkdirSync('.tests', { recursive: true })
let passed = 0
let failed = 0
const run = args => spawnSync('npx', ['--no-install', ...args], { stdio: 'inherit' }).status === 0

/** A check that is one thing: it passes or fails. */
function check(name, args) {
  console.log(`\n— ${name}`)
  ended(name, run(args))
}

function ended(name, good) {
  if (good) passed++
  else {
    failed++
    console.error(`${name} failed`)
  }
}

/** Checks that do not touch what others read, a few after each other in each lane; what a check says is shown when it ends. */
async function lanes(...lists) {
  await Promise.all(
    lists.map(async checks => {
      for (const [name, args] of checks) {
        const said = []
        const child = spawn('npx', ['--no-install', ...args], { stdio: ['ignore', 'pipe', 'pipe'] })
        for (const stream of [child.stdout, child.stderr]) stream.on('data', chunk => said.push(chunk))
        const status = await new Promise(resolve => child.on('close', resolve).on('error', () => resolve(1)))
        console.log(`\n— ${name}`)
        process.stdout.write(Buffer.concat(said))
        ended(name, status === 0)
      }
    }),
  )
}

/** Counts what a runner wrote into its report; a runner that wrote none has failed. */
function counted(name, args, report, count) {
  console.log(`\n— ${name}`)
  const isGood = run(args)
  const counts = existsSync(report) ? count(JSON.parse(readFileSync(report, 'utf8'))) : { passed: 0, failed: 1 }
  passed += counts.passed
  failed += counts.failed
  if (!isGood && counts.failed === 0) failed++
}

const vitest = (name, projects) =>
  counted(
    name,
    [
      'vitest',
      'run',
      ...projects.flatMap(p => ['--project', p]),
      '--reporter=dot',
      '--reporter=json',
      `--outputFile.json=.tests/${projects[0]}.json`,
    ],
    `.tests/${projects[0]}.json`,
    report => ({ passed: report.numPassedTests, failed: report.numFailedTests + report.numPendingTests + report.numTodoTests }),
  )

run(['nuxt', 'prepare'])
await lanes(
  [
    ['layout of the code', ['prettier', '--check', '--log-level', 'warn', '.']],
    ['lint', ['eslint', '.']],
    ['types of demo, stand-ins, benches and tests', ['tsc', '-p', 'tsconfig.tools.json']],
  ],
  [
    ['types of the application', ['nuxt', 'typecheck']],
    ['types of the core, alone', ['tsc', '-p', 'core']],
    ['migrations fit the schema', ['drizzle-kit', 'check']],
  ],
)
vitest('unit and reference tests', ['unit', 'reference'])
check('build', ['nuxt', 'build'])
vitest('server tests', ['server'])
counted('browser tests', ['playwright', 'test'], '.tests/browser.json', report => ({
  passed: report.stats.expected,
  failed: report.stats.unexpected + report.stats.flaky + report.stats.skipped,
}))

console.log(`\n${passed} passed, ${failed} failed`)
process.exit(failed ? 1 : 0)
