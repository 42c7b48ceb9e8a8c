import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { Worker } from 'node:worker_threads'
import type { BodyRead, BodyToRead } from './body-messages'
import { bodyOf } from './body-of'
import { allOperations } from '../operations'
import type { Operation } from '../operations/operation'
import { Problem } from '../problems/problem'

/** What is smaller is read at once: handing it on would take longer. */
const READ_HERE_BYTES = 32 * 1024
/** Whoever sends one large body may send another; after so long the thread ends, and its memory is free. */
const IDLE_MS = 30_000

const tooLarge = new Problem(
  'too large',
  'too-large',
  'The request is too large for this machine',
  'Reading it took more memory than there is. Send less at once.',
)

/** Reads bodies: large ones in a thread of their own, which begins with the first of them. */
export class BodyReader {
  #worker: Worker | null = null
  #waiting = new Map<number, { resolve: (value: unknown) => void; reject: (error: Error) => void }>()
  #last = 0
  #idle: NodeJS.Timeout | undefined

  constructor(private readonly serverDir: string) {}

  /** @param bytes given away with the memory they are in. @throws Problem, ZodError when the operation does not take it. */
  async read(operation: Operation, bytes: Uint8Array<ArrayBuffer>): Promise<unknown> {
    if (bytes.length <= READ_HERE_BYTES) return bodyOf(operation, bytes)
    clearTimeout(this.#idle)
    const worker = (this.#worker ??= this.#begin())
    const id = ++this.#last
    return new Promise((resolve, reject) => {
      this.#waiting.set(id, { resolve, reject })
      worker.postMessage({ id, operation: allOperations.indexOf(operation), bytes } satisfies BodyToRead, [bytes.buffer])
    })
  }

  #begin(): Worker {
    const worker = new Worker(pathToFileURL(join(this.serverDir, 'workers/bodies.mjs')))
    worker.unref()
    worker.on('message', (read: BodyRead) => {
      const waiting = this.#waiting.get(read.id)
      this.#waiting.delete(read.id)
      if ('problem' in read) waiting?.reject(Problem.of(read.problem))
      else waiting?.resolve(read.value)
      if (!this.#waiting.size) this.#idle = setTimeout(() => this.close(), IDLE_MS).unref()
    })
    worker.on('error', error => {
      const isMemory = (error as NodeJS.ErrnoException).code === 'ERR_WORKER_OUT_OF_MEMORY'
      for (const { reject } of this.#waiting.values()) reject(isMemory ? tooLarge : (error as Error))
      this.#waiting.clear()
      this.#worker = null
    })
    return worker
  }

  close(): void {
    clearTimeout(this.#idle)
    void this.#worker?.terminate()
    this.#worker = null
  }
}
