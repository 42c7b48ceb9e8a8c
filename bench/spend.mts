// Reading the spend at a size: import, start, twelve questions, beside the same in SQL on the embedded database and in DuckDB, the fastest
// general engine in the registry. Times are of this machine, now: ratios in one run are the point. Writes bench/results/SIZE.json.
import { spawn } from 'node:child_process'
import { copyFileSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { DuckDBInstance } from '@duckdb/node-api'
import { deliver } from '../server/imports/deliver'
import { startServices, type Services } from '../server/services'
import { fillChargeRows } from './charge-rows'
import { writeBenchFiles } from './charges'
import { questions } from './questions'
import { flat, questionSql, star } from './sql'

const copies = Number(process.argv[2] ?? 1)
/** Only the last so many months: for sizes below that of the demo. */
const lastMonths = Number(process.argv.find(a => a.startsWith('--months='))?.slice(9) ?? 13)
const withSql = !process.argv.includes('--no-sql')
const ROUNDS = 25
const folder = resolve(`.data/bench/${copies}`)
const files = join(folder, 'files')
const ranked = (times: number[]) => [...times].sort((a, b) => a - b)
const median = (times: number[]) => ranked(times)[Math.floor(times.length / 2)]!
const p95 = (times: number[]) => ranked(times)[Math.min(times.length - 1, Math.ceil(times.length * 0.95) - 1)]!
const round = (ms: number) => Math.round(ms * 10) / 10
async function timed<T>(work: () => Promise<T>): Promise<number> {
  const began = performance.now()
  await work()
  return performance.now() - began
}

/** Starts the built server on a data folder: milliseconds to the first answer over HTTP, and the memory it then takes. */
async function startedServer(data: string): Promise<{ startMs: number; memoryMb: number }> {
  const port = 3900 + copies
  const child = spawn(process.execPath, ['.output/server/index.mjs'], {
    env: { ...process.env, PORT: String(port), HOST: '127.0.0.1', RAIN_BARREL_DATA: data },
    stdio: 'ignore',
  })
  const body = JSON.stringify({ questions: questions.map(({ question }) => question), packed: true })
  const ask = (path: string, body: string) =>
    fetch(`http://127.0.0.1:${port}/api/v1/${path}`, { method: 'POST', body, headers: { 'content-type': 'application/json' } })
  const startMs = await timed(async () => {
    for (;;) {
      const reply = await ask('spend/answer', JSON.stringify(questions[0]!.question)).catch(() => null)
      if (reply?.ok) return
      await new Promise(resolve => setTimeout(resolve, 20))
    }
  })
  await (await ask('spend/answers', body)).arrayBuffer()
  const memoryMb = Math.round((Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))![1]) * 1024) / 1e6)
  child.kill('SIGTERM')
  await new Promise(resolve => child.on('exit', resolve))
  return { startMs: Math.round(startMs), memoryMb }
}

/** Queues a delivery of files. */
const send = (services: Services, source: string, list: readonly { name: string }[]): Promise<string> => {
  const sized = list.map(({ name }) => ({ name, bytes: statSync(join(files, name)).size, sha256: '' }))
  return deliver(services.importer, { source, files: sized, who: 'bench', mapping: null }, async (path, number) => {
    copyFileSync(join(files, sized[number]!.name), path)
    return sized[number]!
  })
}

async function main() {
  const all = await writeBenchFiles(files, copies)
  const months = [...new Set(all.map(d => d.month))].sort().slice(-lastMonths)
  const deliveries = all.filter(d => months.includes(d.month))
  const csvs = deliveries.flatMap(d => d.files.map(f => `'${join(files, f.name)}'`)).join(', ')
  const rows = deliveries.flatMap(d => d.files).reduce((n, f) => n + f.rows, 0)
  console.log(`${rows} charges in ${deliveries.length} deliveries`)
  const data = join(folder, 'data')
  rmSync(data, { recursive: true, force: true })
  let services = await startServices(data, resolve('.output/server'))

  // import, from file to answered question, all deliveries sent at once; while it runs questions are asked
  const during: number[] = []
  let loading = true
  const asking = (async () => {
    while (loading) {
      during.push(await timed(() => services.cube.ask('answer', questions[3]!.question)))
      await new Promise(resolve => setTimeout(resolve, 500))
    }
  })()
  const importMs = await timed(async () => {
    const sent = []
    for (const { source, month, files: list } of deliveries) {
      sent.push({ source, month, id: await send(services, source, list) })
    }
    await services.importer.idle()
    for (const { source, month, id } of sent) {
      const status = await services.importer.status(id)
      if (status?.state !== 'loaded')
        throw new Error(`${source} ${month}: ${status?.state} ${status?.message} ${JSON.stringify(status?.errors[0])}`)
    }
  })
  loading = false
  await asking
  const largest = deliveries.reduce((a, b) => (b.files[0]!.rows > a.files[0]!.rows ? b : a))
  const again = await timed(async () => {
    await send(services, largest.source, largest.files)
    await services.importer.idle()
  })
  const againRows = largest.files.reduce((n, f) => n + f.rows, 0)
  await services.close()
  // start and memory are those of the built server in a process of its own, as people have it
  const started = await startedServer(data)
  services = await startServices(data, resolve('.output/server'))

  if (withSql) await fillChargeRows(services)

  const duck = await (await DuckDBInstance.create(':memory:', { threads: '2' })).connect()
  const duckReadMs = await timed(() =>
    duck.run(`create table charges as select * replace (ChargePeriodStart::timestamp as ChargePeriodStart, BilledCost::decimal(38,15) as BilledCost, EffectiveCost::decimal(38,15) as EffectiveCost, ListCost::decimal(38,15) as ListCost, ContractedCost::decimal(38,15) as ContractedCost, PricingQuantity::decimal(38,15) as PricingQuantity)
    from read_csv([${csvs}], all_varchar = true, union_by_name = true, nullstr = '')`),
  )

  const results = []
  for (const { name, question } of questions) {
    const times = { cube: [] as number[], duck: [] as number[], sql: [] as number[] }
    for (let i = 0; i < ROUNDS; i++) {
      times.cube.push(await timed(() => services.cube.ask('answers', [question])))
      if (i < 9) times.duck.push(await timed(() => duck.runAndReadAll(questionSql(question, flat))))
      if (withSql && i < 3) times.sql.push(await timed(() => services.database.query(questionSql(question, star))))
    }
    const own = times.cube.slice(2) // the first two warm the loop that is made for the shape
    const result = {
      name,
      cube: round(median(own)),
      p95: round(p95(own)),
      duck: round(median(times.duck)),
      sql: withSql ? round(median(times.sql)) : null,
    }
    results.push(result)
    console.log(
      name.padEnd(56),
      String(result.cube).padStart(8),
      String(result.p95).padStart(8),
      String(result.duck).padStart(9),
      String(result.sql ?? '–').padStart(9),
    )
  }
  const report = {
    rows,
    importRowsPerSecond: Math.round((rows / importMs) * 1000),
    largestDelivery: { rows: againRows, rowsPerSecond: Math.round((againRows / again) * 1000) },
    duckReadRowsPerSecond: Math.round((rows / duckReadMs) * 1000),
    ...started,
    whileLoading: { median: round(median(during)), p95: round(p95(during)), asked: during.length },
    questions: results,
  }
  mkdirSync('bench/results', { recursive: true })
  writeFileSync(`bench/results/${rows}.json`, JSON.stringify(report, null, 1) + '\n')
  console.log(JSON.stringify({ ...report, questions: undefined }))
  await services.close()
  process.exit(0)
}
await main()
