import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, expect, it } from 'vitest'
import { CubeThread } from '../../../server/charges/cube-thread'

const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-thread-'))
afterEach(() => rmSync(folder, { recursive: true, force: true }))

function threadOf(code: string): CubeThread {
  mkdirSync(join(folder, 'workers'), { recursive: true })
  writeFileSync(join(folder, 'workers/cube.mjs'), code)
  return new CubeThread(folder)
}
const question = { call: 'facts', argument: undefined } as never

it('answers nothing for ever where the thread could not start, whenever it is asked', async () => {
  const thread = new CubeThread(join(folder, 'nowhere'))
  await expect(thread.send(question)).rejects.toThrow('Cannot find module')
  await expect(thread.send(question)).rejects.toThrow('Cannot find module')
})

it('fails what is asked when the thread ends, and all that is asked after it', async () => {
  const thread = threadOf(`import { parentPort } from 'node:worker_threads'; parentPort.once('message', () => process.exit(3))`)
  await Promise.all([1, 2].map(() => expect(thread.send(question)).rejects.toThrow('the thread that has the charges ended (3)')))
  await expect(thread.send(question)).rejects.toThrow('start Rain Barrel again')
  await thread.end()
})
