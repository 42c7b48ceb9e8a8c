// A PostgreSQL server for tests: installs it when it is missing, starts one cluster of its own and makes the empty database that others are
// copied from. Plain Node. As a program, `node scripts/postgres.mjs COMMAND …` runs a command with TEST_POSTGRES_URL set.
import { spawn, spawnSync } from 'node:child_process'
import { chownSync, existsSync, mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

const VERSION = 15
const EMPTY = 'rain_barrel_empty'
const root = dirname(dirname(fileURLToPath(import.meta.url)))
const bin = process.env.POSTGRES_BIN || `/usr/lib/postgresql/${VERSION}/bin`
const isRoot = process.getuid?.() === 0

function installPostgres() {
  if (existsSync(join(bin, 'initdb'))) return
  if (isRoot && existsSync('/usr/bin/apt-get')) {
    console.log(`Installing PostgreSQL ${VERSION} …`)
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
    spawnSync('apt-get', ['update', '-qq'], { stdio: 'inherit' })
    spawnSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', `postgresql-${VERSION}`], { stdio: 'inherit', env })
  }
  if (!existsSync(join(bin, 'initdb')))
    throw new Error(
      `The tests need PostgreSQL ${VERSION} in ${bin}: «apt-get install postgresql-${VERSION}» as root, or set POSTGRES_BIN to its folder.`,
    )
}

const freePort = () =>
  new Promise((resolve, reject) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address()
      probe.close(() => resolve(port))
    })
    probe.on('error', reject)
  })

/** The server refuses to run as root: another user runs it. */
const asOther = (program, args) => (isRoot ? ['runuser', ['-u', 'postgres', '--', program, ...args]] : [program, args])

function run(program, args) {
  const [command, all] = asOther(join(bin, program), args)
  const { status, stderr, stdout } = spawnSync(command, all, { encoding: 'utf8' })
  if (status !== 0) throw new Error(`${program} failed: ${stderr || stdout}`)
  return stdout.trim()
}

/** Starts a server. @returns its address, how to make an empty database on it, and how to stop it and take its files away. */
export async function startPostgres() {
  installPostgres()
  const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-postgres-'))
  if (isRoot) {
    const id = flag => Number(spawnSync('id', [flag, 'postgres'], { encoding: 'utf8' }).stdout)
    chownSync(folder, id('-u'), id('-g'))
  }
  const data = join(folder, 'data')
  run('initdb', ['-D', data, '-U', 'postgres', '-A', 'trust', '-E', 'UTF8', '--locale=C.UTF-8', '--no-sync'])
  const port = await freePort()
  // nothing here outlives the tests: no write waits for the disk
  const settings = {
    listen_addresses: '127.0.0.1',
    port,
    unix_socket_directories: '',
    fsync: 'off',
    synchronous_commit: 'off',
    full_page_writes: 'off',
    max_connections: 200,
    shared_buffers: '128MB',
    log_min_messages: 'fatal',
  }
  const [command, args] = asOther(join(bin, 'postgres'), [
    '-D',
    data,
    ...Object.entries(settings).flatMap(([name, value]) => ['-c', `${name}=${value}`]),
  ])
  const server = spawn(command, args, { stdio: ['ignore', 'ignore', 'inherit'] })
  const ended = new Promise(resolve => server.on('exit', resolve))
  const url = `postgresql://postgres@127.0.0.1:${port}/postgres`
  const stop = async () => {
    try {
      run('pg_ctl', ['stop', '-D', data, '-m', 'immediate', '-w'])
    } catch {
      server.kill('SIGKILL')
    }
    await ended
    rmSync(folder, { recursive: true, force: true })
  }
  try {
    await makeEmpty(url)
  } catch (error) {
    await stop()
    throw error
  }
  const database = async name => {
    const { default: pg } = await import('pg')
    const client = new pg.Client({ connectionString: url })
    await client.connect()
    await client.query(`create database ${name}`)
    await client.end()
    return url.replace(/postgres$/, name)
  }
  return { url, stop, database }
}

/** Makes the database with all migrations applied that tests copy. */
async function makeEmpty(url) {
  const { default: pg } = await import('pg')
  const { drizzle } = await import('drizzle-orm/node-postgres')
  const { migrate } = await import('drizzle-orm/node-postgres/migrator')
  for (let tries = 0; ; tries++) {
    const client = new pg.Client({ connectionString: url })
    try {
      await client.connect()
      await client.query(`create database ${EMPTY}`)
      break
    } catch (error) {
      if (tries > 100) throw error
      await new Promise(resolve => setTimeout(resolve, 100))
    } finally {
      await client.end().catch(() => {})
    }
  }
  const empty = new pg.Client({ connectionString: url.replace(/postgres$/, EMPTY) })
  await empty.connect()
  await migrate(drizzle(empty), { migrationsFolder: join(root, 'server/db/migrations') })
  await empty.end()
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const { url, stop } = await startPostgres()
  const [command, ...args] = process.argv.slice(2)
  const child = spawn(command, args, { stdio: 'inherit', env: { ...process.env, TEST_POSTGRES_URL: url } })
  const status = await new Promise(resolve => child.on('close', resolve))
  await stop()
  process.exit(status ?? 1)
}
