import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { readerFor } from '../../../server/imports/readers'
import { readableEndings } from '../../../shared/readable-files'

it('a reader that was added recognises its files and reads them', async () => {
  const path = join(mkdtempSync(join(tmpdir(), 'trial-')), 'a.jsonl')
  writeFileSync(path, '{"BilledCost":1.5,"ServiceName":"Disks"}\n\n{"BilledCost":2,"ServiceName":null}\n')
  const said: unknown[] = []
  const target = { begin: (header: string[]) => said.push(header) > 0, texts: (cells: string[]) => void said.push([...cells]) }
  const reader = readerFor(path)
  for await (const done of reader.read(path, { compares: false, bytes: () => {}, ...target }, {})) said.push(done)
  expect(said).toEqual([['BilledCost', 'ServiceName'], ['1.5', 'Disks'], ['2', ''], 78])
  expect([reader.format, readableEndings.includes('.jsonl')]).toEqual(['JSON lines', true])
})
