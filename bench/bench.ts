// Import rows per second, and five Spend questions beside the same in SQL on the embedded database. Times are of this machine, now: ratios are the point.
import { copyFileSync, existsSync, mkdirSync, readFileSync, statSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { startServices } from '../server/services'
import { questions } from './questions'

const ROUNDS = 15
const folder = resolve('.data/bench')
const files = join(folder, 'files')
const median = (times: number[]) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)]!

async function main() {
  const services = await startServices(folder, resolve('.output/server'))
  const { cube, importer, database } = services
  const deliveries = JSON.parse(readFileSync(join(files, 'deliveries.json'), 'utf8')) as { source: string, file: string, month: string, rows: number }[]

  async function load({ source, file }: typeof deliveries[number]) {
    const inbox = join(folder, 'inbox', file)
    mkdirSync(inbox, { recursive: true })
    copyFileSync(join(files, file), join(inbox, '0'))
    const id = await importer.start(source, [{ name: file, path: join(inbox, '0'), bytes: statSync(join(files, file)).size, sha256: '' }], inbox, 'bench')
    await importer.idle()
    const status = await importer.status(id)
    if (status?.state !== 'loaded') throw new Error(`${file}: ${status?.state} ${status?.message}`)
  }

  const { result: facts } = await cube.ask('facts', undefined)
  const wanted = deliveries.reduce((n, d) => n + d.rows, 0)
  if (facts.charges !== wanted) {
    const began = performance.now()
    for (const delivery of deliveries) await load(delivery)
    const seconds = (performance.now() - began) / 1000
    console.log(`import, whole demo set: ${wanted} charges in ${deliveries.length} files, ${seconds.toFixed(1)} s, ${Math.round(wanted / seconds)} rows/s from file to answered question`)
  }
  const largest = deliveries.reduce((a, b) => b.rows > a.rows ? b : a)
  const times: number[] = []
  for (let i = 0; i < 3; i++) {
    const began = performance.now()
    await load(largest)
    times.push(performance.now() - began)
  }
  console.log(`import, one file of ${largest.rows} charges, loaded again: ${Math.round(largest.rows / median(times) * 1000)} rows/s (median of 3)\n`)

  console.log(`${'question, milliseconds (median of ' + ROUNDS + ')'.padEnd(2)}`.padEnd(52) + 'cube'.padStart(8) + 'SQL'.padStart(9) + 'ratio'.padStart(8))
  for (const { name, question, sql } of questions) {
    const inCube: number[] = []
    const inSql: number[] = []
    for (let i = 0; i < ROUNDS; i++) {
      let began = performance.now()
      await cube.ask('answer', question)
      inCube.push(performance.now() - began)
      if (i % 3) continue
      began = performance.now()
      await database.client.query(sql)
      inSql.push(performance.now() - began)
    }
    console.log(name.padEnd(52) + median(inCube).toFixed(1).padStart(8) + median(inSql).toFixed(1).padStart(9) + `${(median(inSql) / median(inCube)).toFixed(0)} ×`.padStart(8))
  }
  console.log(`\nmemory of the process: ${Math.round(process.memoryUsage().rss / 1e6)} MB`)
  await services.close()
}

if (!existsSync(join(files, 'deliveries.json'))) throw new Error('run it by «npm run bench»: it writes the demo\'s files first')
await main()
process.exit(0)
