// How long the same deliveries take into the embedded database and into a PostgreSQL server, one after the other, three rounds in one run.
// `node scripts/postgres.mjs npx tsx bench/import-databases.mts`. Writes bench/results/import-databases.json.
import { copyFileSync, mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { deliver } from '../server/imports/deliver'
import { startServices } from '../server/services'
import { databaseOf } from '../tests/support/postgres'
import { writeBenchFiles } from './charges'

const ROUNDS = 3
const files = resolve('.data/bench/1/files')

async function importMs(url: string | undefined): Promise<{ ms: number; rows: number }> {
  const data = mkdtempSync(join(tmpdir(), 'rain-barrel-bench-'))
  const deliveries = await writeBenchFiles(files, 1)
  const services = await startServices(data, resolve('.output/server'), { url })
  const began = performance.now()
  const sent: string[] = []
  for (const { source, files: list } of deliveries) {
    const sized = list.map(({ name }) => ({ name, bytes: statSync(join(files, name)).size, sha256: '' }))
    sent.push(
      await deliver(services.importer, { source, files: sized, who: 'bench', mapping: null }, async (path, number) => {
        copyFileSync(join(files, sized[number]!.name), path)
        return sized[number]!
      }),
    )
  }
  await services.importer.idle()
  const ms = performance.now() - began
  for (const id of sent) {
    const status = await services.importer.status(id)
    if (status?.state !== 'loaded') throw new Error(`${id}: ${status?.state} ${status?.message}`)
  }
  const rows = (await services.cube.ask('facts', undefined)).result.charges
  await services.close()
  rmSync(data, { recursive: true, force: true })
  return { ms, rows }
}

async function main() {
  const times: Record<'embedded' | 'server', number[]> = { embedded: [], server: [] }
  let rows = 0
  for (let round = 0; round < ROUNDS; round++) {
    for (const database of ['embedded', 'server'] as const) {
      const done = await importMs(database === 'server' ? await databaseOf(`bench ${process.pid} ${round}`) : undefined)
      times[database].push(Math.round(done.ms))
      rows = done.rows
    }
  }
  const median = (list: number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!
  const ratio = Math.round((median(times.server) / median(times.embedded)) * 100) / 100
  writeFileSync('bench/results/import-databases.json', JSON.stringify({ rows, times, ratio }, null, 2) + '\n')
  console.log(
    `${rows} charges: embedded ${times.embedded.join(', ')} ms, server ${times.server.join(', ')} ms; the server takes ${ratio} times as long`,
  )
}
await main()
