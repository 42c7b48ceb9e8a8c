import { fork, type ChildProcess } from 'node:child_process'
import { EventEmitter } from 'node:events'
import { readFileSync } from 'node:fs'
import { totalmem } from 'node:os'
import { join } from 'node:path'
import type { IdTexts } from '../charges/entry-ids'
import type { ImportMessage, ImportTask } from './reading-messages'

/** Why a reading process has ended: it was told to, it took more memory than it may, or it broke down over what it read. */
export type ReadingEnd = 'told' | 'too large' | 'broke down'

const MB = 1024 * 1024
const PAGE_BYTES = 4096
const LOOK_EVERY_MS = 100
const MOST_SAID = 4000

/** The most memory that reading may take, in MB: `RAIN_BARREL_READER_MB`, else half of the machine's, and 4 GB at most. */
export const readerLimitMb = (): number => Number(process.env.RAIN_BARREL_READER_MB) || Math.min(4096, Math.floor(totalmem() / MB / 2))

/**
 * The process that reads arriving files: what they do to it does not reach the server. Its memory is watched from outside, since what a
 * format's reader allocates is not held by any limit of its own.
 */
export class ReadingProcess extends EventEmitter<{ message: [ImportMessage]; end: [ReadingEnd] }> {
  readonly #child: ChildProcess
  readonly #watch: NodeJS.Timeout
  #why: ReadingEnd = 'broke down'
  #said = ''

  constructor(serverDir: string, limitMb = readerLimitMb()) {
    super()
    this.#child = fork(join(serverDir, 'workers/imports.mjs'), {
      serialization: 'advanced',
      stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
      // no secret of the server's is within reach of what it reads
      env: { ...(process.env.RAIN_BARREL_ROW_MB && { RAIN_BARREL_ROW_MB: process.env.RAIN_BARREL_ROW_MB }) },
      execArgv: ['--enable-source-maps', `--max-old-space-size=${limitMb}`],
    })
    this.#child.unref()
    this.#child.channel?.unref()
    this.#child.stderr!.on('data', (chunk: Buffer) => {
      this.#said = (this.#said + chunk.toString()).slice(-MOST_SAID)
    })
    ;(this.#child.stderr as unknown as { unref?: () => void }).unref?.()
    this.#child.on('message', message => this.emit('message', message as ImportMessage))
    this.#child.on('error', () => {}) // what cannot be sent any more; `exit` says the rest
    this.#child.on('exit', (code, signal) => this.#ended(code, signal))
    this.#watch = setInterval(() => {
      if (residentBytes(this.#child.pid) > limitMb * MB) this.#kill('too large')
    }, LOOK_EVERY_MS)
    this.#watch.unref()
  }

  /** Hands something over; nothing happens where the process has ended. */
  send(message: ImportTask | { ids: IdTexts } | 'next'): void {
    if (this.#child.connected) this.#child.send(message)
  }

  /** Ends it at once, whatever it does. */
  end(): void {
    this.#kill('told')
  }

  #kill(why: ReadingEnd): void {
    this.#why = why
    this.#child.kill('SIGKILL')
  }

  #ended(code: number | null, signal: NodeJS.Signals | null): void {
    clearInterval(this.#watch)
    // the engine ends a process whose own heap is full
    if (this.#why === 'broke down' && /heap out of memory/i.test(this.#said)) this.#why = 'too large'
    if (this.#why !== 'told') console.error(`the reading process ended (${signal ?? code}): ${this.#why}\n${this.#said}`)
    this.emit('end', this.#why)
  }
}

/** What a process holds in memory (`/proc/PID/statm`, in pages); 0 where the system does not tell. */
function residentBytes(pid: number | undefined): number {
  try {
    return Number(readFileSync(`/proc/${pid}/statm`, 'utf8').split(' ')[1]) * PAGE_BYTES
  } catch {
    return 0
  }
}
