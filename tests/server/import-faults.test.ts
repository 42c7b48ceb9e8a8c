import { copyFileSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { afterAll, beforeAll, expect, it, vi } from 'vitest'
import { tableName } from '../../server/db/schema/dictionary'
import { startServices, type Services } from '../../server/services'
import { charge, focusCsv } from '../support/charges'

const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-faults-'))
let services: Services
beforeAll(async () => {
  services = await startServices(join(folder, 'data'), resolve('.output/server'))
})
afterAll(async () => {
  await services.close()
  rmSync(folder, { recursive: true, force: true })
})

let sent = 0
async function send(csv: string): Promise<string> {
  const inbox = join(folder, `inbox-${++sent}`)
  mkdirSync(inbox)
  writeFileSync(join(folder, 'file.csv'), csv)
  copyFileSync(join(folder, 'file.csv'), join(inbox, '0'))
  return services.importer.start(
    'faulty',
    [{ name: 'file.csv', path: join(inbox, '0'), bytes: csv.length, sha256: String(sent) }],
    inbox,
    'test',
  )
}
const csv = (resource: string, amount: string) => focusCsv([charge({ BilledCost: amount, ResourceId: resource, ResourceName: resource })])
const asked = {
  measure: 'billedCost' as const,
  splitBy: ['ResourceId'],
  grain: null,
  start: '2026-10-01',
  end: '2026-11-01',
  keep: {},
  leaveOut: {},
}

it('a load whose charges cannot be kept fails, leaves nothing, and what comes after it is right', async () => {
  const said = vi.spyOn(console, 'error').mockImplementation(() => {})
  await send(csv('r-before', '1'))
  await services.importer.idle()
  const { client } = services.database
  const query = client.query.bind(client)
  let refuse = true
  vi.spyOn(client, 'query').mockImplementation((sql, ...rest) => {
    if (refuse && sql.includes(`copy ${tableName('resource')}`)) {
      refuse = false
      // late enough for the next delivery to have been read
      return new Promise((_, reject) => setTimeout(() => reject(new Error('the disk is full')), 400))
    }
    return query(sql, ...rest)
  })
  // the second is read while the first is being kept: it may name what only the first had told the database
  const ids = [await send(csv('r-first', '2')), await send(csv('r-first', '3'))]
  await services.importer.idle()
  const ends = await Promise.all(ids.map(id => services.importer.status(id)))
  expect(refuse).toBe(false)
  expect(ends.map(end => end!.state)).toEqual(['stopped', 'stopped'])
  expect(ends[0]!.message).toContain('the disk is full')
  const third = await send(csv('r-first', '4'))
  await services.importer.idle()
  expect((await services.importer.status(third))!.state).toBe('loaded')
  const { result } = await services.cube.ask('answer', asked)
  expect(result.rows.map(row => [row.values.ResourceId, row.amount])).toEqual([['r-first', '4']])
  const { rows } = (await query('select distinct load_id from charge_segment order by 1')) as unknown as { rows: { load_id: number }[] }
  // of the failed ones nothing is kept: only what counts, and what counted before it
  const loaded = (await services.importer.recent(10)).filter(load => load.state === 'loaded').map(load => Number(load.id))
  expect(rows.map(row => row.load_id).every(id => loaded.includes(id))).toBe(true)
  said.mockRestore()
})
