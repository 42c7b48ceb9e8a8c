import { join } from 'node:path'
import { Readable } from 'node:stream'
import { pathToFileURL } from 'node:url'
import { Worker } from 'node:worker_threads'
import type { LinesSaid, LinesTold } from './lines-messages'
import type { LineSource } from './charge-lines'
import type { LinesTask } from './lines-file'

/** Charge lines as a file, made in a thread of their own while they are taken. Whoever leaves ends the thread. */
export function linesStream(serverDir: string, kept: LineSource, task: LinesTask): Readable {
  const worker = new Worker(pathToFileURL(join(serverDir, 'workers/lines.mjs')), { workerData: task })
  const tell = (told: LinesTold) => worker.postMessage(told)
  const stream = new Readable({
    read: () => tell({ more: true }),
    destroy(error, done) {
      void worker.terminate().then(() => done(error))
    },
  })
  worker.on('error', error => stream.destroy(error as Error))
  worker.on('message', (said: LinesSaid) => {
    if ('piece' in said) stream.push(said.piece)
    else if ('end' in said) stream.push(null)
    else if ('error' in said) stream.destroy(new Error(said.error))
    else {
      const { id, ask, args } = said
      const answer = (kept[ask] as (...args: unknown[]) => Promise<unknown>)(...args)
      answer.then(
        answer => tell({ id, answer }),
        (error: Error) => tell({ id, failed: error.message }),
      )
    }
  })
  return stream
}
