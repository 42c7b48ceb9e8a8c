// `npm test`: installs what is missing, then runs every check, and ends with one line that counts them. Plain Node.
import { spawn } from 'node:child_process'
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { chromiumPath, installChromium } from './chromium.mjs'
import { install } from './install.mjs'
import { startPostgres } from './postgres.mjs'
import { TYPE_PROGRAMS } from './types.mjs'

process.chdir(dirname(dirname(fileURLToPath(import.meta.url))))
install()

installChromium()
const chromium = chromiumPath()
if (!existsSync(chromium)) {
  console.error(`The browser tests need Chromium at ${chromium}: «apt-get install chromium» as root, or set CHROMIUM to its path.`)
  process.exit(1)
}

rmSync('.tests', { recursive: true, force: true })
mkdirSync('.tests/postgres', { recursive: true })
let passed = 0
let failed = 0
const minutes = []
/** What failed, by name: said once more at the end, after all that was printed. */
const failures = []

/** Behind everything else, no more than the product's own process that reads files, which is as gentle. */
const GENTLE = { RAIN_BARREL_GENTLE: '1' }

/** Runs a command and shows what it says when it has ended. @returns whether it went well. */
async function run(name, args, env = {}) {
  const began = Date.now()
  const said = []
  const whole = args[0] === process.execPath ? args : ['npx', '--no-install', ...args]
  const [command, ...rest] = env.RAIN_BARREL_GENTLE ? ['nice', '-n', '19', ...whole] : whole
  const child = spawn(command, rest, { stdio: ['ignore', 'pipe', 'pipe'], env: { ...process.env, ...env } })
  for (const stream of [child.stdout, child.stderr]) stream.on('data', chunk => said.push(chunk))
  const status = await new Promise(resolve => child.on('close', resolve).on('error', () => resolve(1)))
  const took = `${((Date.now() - began) / 60_000).toFixed(1)} min`
  minutes.push(`${name} ${took}`)
  console.log(`\n— ${name}, ${took}`)
  process.stdout.write(Buffer.concat(said))
  return status === 0
}

/** A check that is one thing: it passes or fails. */
const check = (name, args, env) => async () => {
  if (await run(name, args, env)) passed++
  else {
    failed++
    failures.push(name)
  }
}

/** Counts what a runner wrote into its report; a runner that wrote none has failed. */
const counted = (name, args, report, count, env) => async () => {
  const isGood = await run(name, args, env)
  const counts = existsSync(report)
    ? count(JSON.parse(readFileSync(report, 'utf8')))
    : { passed: 0, failed: 1, names: ['no report was written'] }
  passed += counts.passed
  failed += counts.failed
  failures.push(...counts.names.map(what => `${name}: ${what}`))
  if (!isGood && counts.failed === 0) {
    failed++
    failures.push(`${name}: every test passed, but the runner says it failed`)
  }
}

const vitest = (name, projects, report, env) =>
  counted(
    name,
    [
      'vitest',
      'run',
      ...projects.flatMap(project => ['--project', project]),
      '--reporter=dot',
      '--reporter=json',
      `--outputFile.json=.tests/${report}.json`,
    ],
    `.tests/${report}.json`,
    ({ numPassedTests, numFailedTests, numPendingTests, numTodoTests, testResults }) => ({
      passed: numPassedTests,
      failed: numFailedTests + numPendingTests + numTodoTests,
      names: testResults.flatMap(({ assertionResults }) =>
        assertionResults
          .filter(({ status }) => status !== 'passed')
          .map(({ fullName, status, failureMessages }) => `${fullName} (${[status, ...failureMessages].join(': ').slice(0, 1500)})`),
      ),
    }),
    env,
  )

const browser = (name, args, kept, env) =>
  counted(
    name,
    ['playwright', 'test', ...args],
    `${kept}/browser.json`,
    ({ stats, suites }) => ({
      passed: stats.expected,
      failed: stats.unexpected + stats.flaky + stats.skipped,
      names: suites.flatMap(({ specs }) => specs.filter(({ ok }) => !ok).map(({ title }) => title)),
    }),
    { ...env, E2E_KEPT: kept },
  )

/** Checks that do not touch what others read, one after the other in each lane. */
async function lanes(...lists) {
  await Promise.all(
    lists.map(async checks => {
      for (const one of checks) await one()
    }),
  )
}

await run('preparation', ['nuxt', 'prepare'])
await lanes([vitest('unit and reference tests', ['unit', 'reference'], 'unit')], [check('build', ['nuxt', 'build'])])

// a PostgreSQL server that lives as long as the tests that need it
const postgres = await startPostgres()
try {
  await lanes(
    [
      // they kill servers and hold limits of time: what runs meanwhile gives way to them, in the time in which they wait
      vitest('server tests', ['server'], 'server'),
      vitest('server tests on PostgreSQL', ['server', 'postgres'], 'server-on-postgres', { TEST_POSTGRES_URL: postgres.url }),
      // two at a time: they wait half of the time
      browser('browser tests', ['--workers=2'], '.tests'),
    ],
    [
      check('lint', ['eslint', '.'], GENTLE),
      check('arrows between layers and rooms', ['depcruise', 'core', 'server', 'shared', 'app', 'demo', 'stand-ins'], GENTLE),
    ],
    [
      ...TYPE_PROGRAMS.map(([name, command]) => check(name, command, GENTLE)),
      check('layout of the code', ['prettier', '--check', '--log-level', 'warn', '.'], GENTLE),
      check('migrations fit the schema', ['drizzle-kit', 'check'], GENTLE),
    ],
  )
} finally {
  await postgres.stop()
}

// what the browser showed where a browser test failed
const results = '.tests/results'
for (const file of existsSync(results) ? readdirSync(results, { recursive: true }) : [])
  if (file.endsWith('error-context.md')) console.log(`\n— ${file}\n${readFileSync(join(results, file), 'utf8')}`)

console.log(`\n${minutes.join(', ')}`)
if (failures.length) console.log(`failed:\n${failures.map(name => `- ${name}`).join('\n')}`)
console.log(`${passed} passed, ${failed} failed`)
process.exit(failed ? 1 : 0)
