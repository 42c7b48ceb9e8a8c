// Files made to break what reads them: each is refused within seconds, the server goes on, and so do the loads behind it.
import { execFile } from 'node:child_process'
import { promisify } from 'node:util'
import { mkdtempSync, readFileSync, readdirSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { parquetMetadata } from 'hyparquet'
import { ByteWriter, parquetWriteBuffer } from 'hyparquet-writer'
import { writeMetadata } from 'hyparquet-writer/src/metadata.js'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { fileColumns, type FileCharge } from '../../demo/focus-file'
import { charge, focusCsv } from '../support/charges'
import { deliver, ended } from '../support/imports'
import { post, remove, startServer, type Running } from '../support/server'

const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-hostile-'))
let server: Running
beforeAll(async () => {
  server = await startServer({ env: { RAIN_BARREL_READER_MB: '600', RAIN_BARREL_ROW_MB: '24' } })
  await deliver(server, 'first', focusCsv([charge({ BillingAccountId: 'first' })])) // the reading process is there
})
afterAll(async () => {
  await server.stop()
  remove(server.folder)
  remove(folder)
})

const header = focusCsv([charge({ BillingAccountId: 'x' })]).split('\n')[0]!

const shell = (command: string) => promisify(execFile)('sh', ['-c', command])
/** What the server is made of: its own process and those it has begun. */
const readers = (of = server) =>
  readdirSync('/proc')
    .filter(name => /^\d+$/.test(name))
    .flatMap(pid => {
      try {
        const [, parent] = /\) \S (\d+)/.exec(readFileSync(`/proc/${pid}/stat`, 'utf8'))!
        return Number(parent) === of.process.pid ? [Number(pid)] : []
      } catch {
        return []
      }
    })
/** Ends a process from outside, where it has not ended by itself just now. */
const end = (pid: number) => {
  try {
    process.kill(pid, 'SIGKILL')
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ESRCH') throw error
  }
}
const residentMb = (pid: number) => (Number(readFileSync(`/proc/${pid}/statm`, 'utf8').split(' ')[1]) * 4096) / 1024 / 1024
/** Delivers, with the most memory that reading took. */
async function hostile(bytes: Buffer | string, to = server) {
  let mb = 0
  const look = setInterval(() => {
    for (const pid of readers(to)) {
      try {
        mb = Math.max(mb, residentMb(pid))
      } catch {
        // it has just ended
      }
    }
  }, 20)
  const began = Date.now()
  const load = await deliver(to, 'hostile', bytes)
  clearInterval(look)
  return { state: load.state, problem: load.errors[0]!, seconds: (Date.now() - began) / 1000, mb }
}
const goesOn = async (account: string, on = server) =>
  expect((await deliver(on, account, focusCsv([charge({ BillingAccountId: account, BilledCost: '3' })]))).state).toBe('loaded')

/** Charges as Parquet whose columns are all texts. */
const parquetOf = (rows: FileCharge[], more: Record<string, Uint8Array> = {}) =>
  Buffer.from(
    parquetWriteBuffer({
      codec: 'UNCOMPRESSED',
      columnData: fileColumns.map(name => ({
        name,
        type: 'BYTE_ARRAY' as const,
        data: rows.map((row, at) => (at === 1 && more[name]) || (row[name] ? new TextEncoder().encode(row[name]) : null)),
      })),
    }),
  )

/** Parquet whose footer says of its rows what is not so. */
function lying(rows: bigint, values: bigint): Buffer {
  const honest = parquetOf(['1', '2', '3'].map(cost => charge({ BillingAccountId: 'lying', BilledCost: cost })))
  const metadata = parquetMetadata(honest.buffer.slice(honest.byteOffset, honest.byteOffset + honest.byteLength) as ArrayBuffer)
  const writer = new ByteWriter()
  writer.appendBytes(honest.subarray(0, honest.length - 8 - metadata.metadata_length))
  metadata.num_rows = metadata.row_groups[0]!.num_rows = rows
  for (const { meta_data } of metadata.row_groups[0]!.columns) meta_data!.num_values = values
  writeMetadata(writer, metadata as never) // the writer has types of its own for the same
  writer.appendUint32(0x31524150)
  return Buffer.from(writer.getBytes())
}

it('Parquet that claims a thousand million rows, or ten million that are not there', async () => {
  const claim = await hostile(lying(1_000_000_000n, 1_000_000_000n))
  expect([claim.state, claim.problem.reason]).toEqual(['refused', expect.stringContaining('1000000000 rows, more than are read at once')])
  const more = await hostile(lying(10_000_000n, 3n))
  expect([more.state, more.problem.reason]).toEqual([
    'refused',
    expect.stringContaining('damaged: row group 1 says that it has 10000000 rows'),
  ])
  const missing = await hostile(lying(4n, 4n))
  expect([missing.state, missing.problem.reason]).toEqual(['refused', expect.stringMatching(/damaged|cannot be read as Parquet/)])
  for (const { seconds, mb } of [claim, more, missing]) expect([seconds < 30, mb < 600]).toEqual([true, true])
  await goesOn('after-parquet')
})

it('what takes more memory than it may is ended by its process, and refused; what waits behind is read', async () => {
  const small = await startServer({ env: { RAIN_BARREL_READER_MB: '160' } })
  await goesOn('first', small) // the reading process is there
  const [before] = readers(small)
  // one cell of 200 MB in quotes, packed to less than a hundredth: to hold it alone is too much, however late one looks
  const cell = `"${'"" x '.repeat(40_000_000)}`
  const packed = gzipSync(Buffer.concat([Buffer.from(`${header}\n`), Buffer.from(cell)]), { level: 1 })
  const [large, behind] = await Promise.all([
    hostile(packed, small),
    deliver(small, 'behind', focusCsv([charge({ BillingAccountId: 'behind', BilledCost: '4' })])),
  ])
  expect(large.state).toBe('refused')
  expect(large.problem.reason).toMatch(/too large for this machine: reading it took more than 160 MB/)
  expect(behind.state).toBe('loaded')
  expect(small.process.exitCode).toBeNull()
  // its process is ended from outside in the middle of a file: damaged, and started again
  const ending = setInterval(() => readers(small).forEach(end), 5)
  const killed = await hostile(
    focusCsv(Array.from({ length: 60_000 }, (_, i) => charge({ BillingAccountId: 'killed', ResourceId: `r-${i}` }))),
    small,
  )
  clearInterval(ending)
  expect([killed.state, killed.problem.reason]).toEqual(['refused', 'damaged: it ended the process that read it'])
  await goesOn('after-kill', small)
  expect(readers(small)).not.toContain(before)
  await small.stop()
  remove(small.folder)
})

it('a line without an end, a quote that is not closed, and nothing but empty lines', async () => {
  const file = join(folder, 'large.csv')
  for (const [name, make, why] of [
    ['a line', `{ printf '%s\\n' '${header}'; head -c 30000000 /dev/zero | tr '\\0' x; }`, 'a row does not end within 24 MB'],
    ['a quote', `{ printf '%s\\n"' '${header}'; head -c 30000000 /dev/zero | tr '\\0' x; }`, 'a row does not end within 24 MB'],
    ['empty lines', `{ printf '%s\\n' '${header}'; head -c 3000000 /dev/zero | tr '\\0' '\\n'; }`, 'more than 1000000 empty lines'],
  ] as const) {
    await shell(`${make} | gzip -1 > ${file}`)
    const found = await hostile(readFileSync(file))
    expect([name, found.state, found.problem.reason]).toEqual([
      name,
      'refused',
      expect.stringMatching(new RegExp(`${why}|unpacks to more than 200`)),
    ])
    // some seconds on a quiet machine; beside what else runs in a slow one it took 21 and 34
    expect([name, found.seconds < 120, found.mb < 600]).toEqual([name, true, true])
  }
  await goesOn('after-lines')
}, 120_000)

it('gzip that unpacks to far more than its size, in the middle of a file that begins well', async () => {
  const row = focusCsv([charge({ BillingAccountId: 'bomb' })])
  writeFileSync(join(folder, 'rows'), row)
  const line = row.split('\n')[1]!
  await shell(
    `{ cat ${join(folder, 'rows')}; yes '${line.replaceAll("'", "'\\''")}' | head -n 120000; } | gzip -6 > ${join(folder, 'bomb.gz')}`,
  )
  const found = await hostile(readFileSync(join(folder, 'bomb.gz')))
  expect([found.state, found.problem.reason]).toEqual(['refused', 'the compressed file unpacks to more than 200 times its size'])
  expect(found.seconds).toBeLessThan(120)
}, 120_000)

it('what is no text is refused with its row and column: NUL, ill-formed UTF-8, half a pair of surrogates', async () => {
  const csv = (own: Record<string, string>) =>
    focusCsv([charge({ BillingAccountId: 'text' }), charge({ BillingAccountId: 'text', ...own })])
  const bytes = Buffer.from(csv({ ResourceName: 'QQQ' }))
  bytes[bytes.indexOf('QQQ')] = 0xff
  const tags = (text: string) => csv({ Tags: text })
  const two = [charge({ BillingAccountId: 'text' }), charge({ BillingAccountId: 'text' })]
  for (const [what, file, column] of [
    ['NUL', csv({ ResourceName: 'a\0b' }), 'ResourceName'],
    ['UTF-8', bytes, 'ResourceName'],
    ['NUL in a tag', tags('{"team":"a\\u0000b"}'), 'Tags'],
    ['half a pair in a tag', tags('{"team":"\\ud800"}'), 'Tags'],
    ['half a pair as a key', tags('{"\\udc00":"a"}'), 'Tags'],
    ['UTF-8 in Parquet', parquetOf(two, { ResourceName: new Uint8Array([0xff, 0xfe]) }), 'ResourceName'],
  ] as const) {
    const load = await deliver(server, 'text', file)
    expect([what, load.state, load.errors.map(error => [error.row, error.column])]).toEqual([what, 'refused', [[2, column]]])
  }
})

it('stop ends a load within two seconds, whatever is being read', async () => {
  const rows = Array.from({ length: 80_000 }, (_, i) => charge({ BillingAccountId: 'stop', ResourceId: `r-${i}` }))
  const { id } = await server.json<{ id: string }>('imports?source=stop', { method: 'POST', body: focusCsv(rows) })
  for (let bytes = 0; !bytes;) ({ bytesDone: bytes } = await server.json<{ bytesDone: number }>(`imports/${id}`))
  const began = Date.now()
  await server.call(`imports/${id}/stop`, post({}))
  expect((await ended(server, id)).state).toBe('stopped')
  // within two seconds on a quiet machine
  expect(Date.now() - began).toBeLessThan(8000)
  await goesOn('after-stop')
})

it('tells of it in the log, and nothing else went wrong', () => {
  expect(server.log().match(/^fault/gm)).toBeNull()
  expect(server.process.exitCode).toBeNull()
})
