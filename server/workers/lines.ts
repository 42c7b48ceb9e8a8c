// The thread that writes charge lines as a file, piece by piece, no faster than they are taken, and ends.
import { parentPort, workerData } from 'node:worker_threads'
import type { LineSource } from '../exports/lines/charge-lines'
import type { LinesSaid, LinesTold } from '../exports/lines/lines-messages'
import { linesFile, type LinesTask } from '../exports/lines/lines-file'
import { goGently } from './gentle'

goGently()

const port = parentPort!
const waiting = new Map<number, { resolve: (answer: never) => void; reject: (error: Error) => void }>()
let last = 0
let wanted = 0
let wake: (() => void) | null = null

const say = (said: LinesSaid, transfer: ArrayBuffer[] = []) => port.postMessage(said, transfer)
const ask = <K extends keyof LineSource>(what: K, ...args: Parameters<LineSource[K]>): ReturnType<LineSource[K]> =>
  new Promise((resolve, reject) => {
    const id = ++last
    waiting.set(id, { resolve, reject })
    say({ id, ask: what, args } as LinesSaid)
  }) as ReturnType<LineSource[K]>

port.on('message', (told: LinesTold) => {
  if ('more' in told) {
    wanted++
    wake?.()
    return
  }
  const { resolve, reject } = waiting.get(told.id)!
  waiting.delete(told.id)
  if ('failed' in told) reject(new Error(told.failed))
  else resolve(told.answer as never)
})

const kept: LineSource = {
  rows: () => ask('rows'),
  segments: (...args) => ask('segments', ...args),
  entriesText: (...args) => ask('entriesText', ...args),
}

try {
  for await (const made of linesFile(kept, workerData as LinesTask)) {
    while (wanted === 0) await new Promise<void>(resolve => (wake = resolve))
    wanted--
    const piece = new Uint8Array(made) // in memory of its own, which can be given away
    say({ piece }, [piece.buffer])
  }
  say({ end: true })
} catch (error) {
  say({ error: (error as Error).stack ?? (error as Error).message })
}
port.close()
