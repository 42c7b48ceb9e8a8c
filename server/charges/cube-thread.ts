import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { Worker } from 'node:worker_threads'
import type { Seen } from './charges-seen'
import type { CubeReply, CubeRequest } from './cube/cube-messages'
import { GivenUp } from './cube/in-slices'

/** The thread that has the charges, spoken with by messages. Once it has ended everything that is asked of it fails, and says so. */
export class CubeThread {
  readonly #worker: Worker
  #waiting = new Map<number, { resolve: (reply: never) => void; reject: (error: Error) => void }>()
  #last = 0
  #failed: Error | null = null

  /** Starts it. @param serverDir the built server, or another place with `workers/cube.mjs`. */
  constructor(serverDir: string) {
    this.#worker = new Worker(pathToFileURL(join(serverDir, 'workers/cube.mjs')))
    this.#worker.on('message', (reply: CubeReply) => {
      const waiting = this.#waiting.get(reply.id)
      this.#waiting.delete(reply.id)
      if ('givenUp' in reply) waiting?.reject(new GivenUp())
      else if ('error' in reply) waiting?.reject(new Error(reply.error))
      else waiting?.resolve({ revision: reply.revision, result: reply.result } as never)
    })
    this.#worker.on('error', error => this.#fail(error as Error))
    this.#worker.on('exit', code => this.#fail(new Error(`the thread that has the charges ended (${code}); start Rain Barrel again`)))
  }

  /** @param unwanted ends what is done in slices. @throws Error what went wrong there, or that it has ended. */
  send<T>(request: Omit<CubeRequest, 'id'>, transfer: ArrayBuffer[] = [], unwanted?: AbortSignal): Promise<Seen<T>> {
    if (this.#failed) return Promise.reject(this.#failed)
    const id = ++this.#last
    return new Promise((resolve, reject) => {
      this.#waiting.set(id, { resolve, reject })
      this.#worker.postMessage({ id, ...request }, transfer)
      const giveUp = () => this.#worker.postMessage({ giveUp: id } satisfies CubeRequest)
      if (unwanted?.aborted) giveUp()
      else unwanted?.addEventListener('abort', giveUp, { once: true })
    })
  }

  async end(): Promise<void> {
    await this.#worker.terminate()
  }

  #fail(error: Error): void {
    this.#failed ??= error
    for (const { reject } of this.#waiting.values()) reject(this.#failed)
    this.#waiting.clear()
  }
}
