import { mergeConformance } from '../../core/focus/conformance'
import { dictionaryNames } from '../../core/focus/star'
import type { JobProgress } from '../../shared/contracts/jobs'
import type { ChargeStore } from '../charges/charge-store'
import type { KnownTexts } from '../charges/entry-ids'
import type { Inbox } from './inbox'
import type { Underway } from './load-list'
import type { LoadRow } from './load-row'
import type { ImportDone, ImportMessage, ImportTask } from './reading-messages'
import { readerLimitMb, ReadingProcess, type ReadingEnd } from './reading-process'

/** What came of reading a delivery, and when all that was read is staged: the next may be read meanwhile. */
export type Read = { result: ImportDone | 'stopped'; staged: Promise<unknown> }
/** A load that this process reads. */
export type Running = Underway & { id: number; reading: ReadingProcess | null; stop: boolean; report: (progress: JobProgress) => void }

/** Deliveries that are read: in a process of their own, which stays, and staged in batches as they come. */
export class Reading {
  /**
   * Until all that was read is kept, of whatever delivery. Once it fails, so does all that the same process sends: it may build
   * on what was lost.
   */
  #staging: Promise<unknown> = Promise.resolve()
  #reader: ReadingProcess | null = null

  constructor(
    private readonly charges: ChargeStore,
    private readonly inbox: Inbox,
    private readonly serverDir: string,
  ) {}

  /** Reads and checks a delivery and stages its charges. */
  async read(running: Running, { source, files, mapping }: Pick<LoadRow, 'source' | 'files' | 'mapping'>): Promise<Read> {
    if (running.stop) return { result: 'stopped', staged: Promise.resolve() }
    // the process stays for the next load: it knows the dictionaries, and what it has learnt to do fast it does fast from the start
    const task: ImportTask = {
      loadId: running.id,
      source,
      mapping,
      files: files.map(({ name, bytes, sha256 }, i) => ({ name, bytes, sha256, path: this.inbox.path(running.id, i) })),
      known: this.#reader ? null : await this.#keptEntries(),
    }
    const reader = (this.#reader ??= this.#newReader())
    running.reading = reader
    return this.#follow(reader, running, task)
      .catch((error: Error) => {
        if (this.#reader === reader) this.endReader()
        throw error
      })
      .finally(() => {
        running.reading = null
      })
  }

  #newReader(): ReadingProcess {
    const reader = new ReadingProcess(this.serverDir)
    reader.on('end', () => {
      if (this.#reader === reader) this.#reader = null // also where it ended with nothing to read
    })
    return reader
  }

  /** Ends the reading process; a load that it reads is stopped. */
  endReader(): void {
    this.#reader?.end()
    this.#reader = null
  }

  /** Stages batches as they come until the delivery is read, was stopped or failed. */
  #follow(reader: ReadingProcess, running: Running, task: ImportTask): Promise<Read> {
    let staged: Promise<unknown> = Promise.resolve()
    const total = task.files.reduce((bytes, file) => bytes + file.bytes, 0)
    let hear: (message: ImportMessage) => void
    let notice: (why: ReadingEnd) => void
    return new Promise<Read>((resolve, reject) => {
      hear = message => {
        if (message.type === 'progress') {
          running.progress = { bytesDone: message.bytesDone, rows: message.rows, errorCount: message.errorCount }
          running.report({ done: message.bytesDone, of: total, unit: 'bytes', words: `${message.rows} charges read` })
        } else if (message.type === 'fault') reject(new Error(message.message))
        else if (message.type === 'done') resolve({ result: running.stop ? 'stopped' : message, staged })
        else {
          const mine = this.#staging
            .then(async () => {
              if (message.type === 'segments') {
                await this.charges.keep(running.id, message.segments)
                return 'next'
              }
              return { ids: await this.charges.entries.enter(message.entries) }
            })
            .then(reply => reader.send(reply))
          staged = Promise.all([staged, mine])
          staged.catch(() => {}) // told to whoever waits for it, if anyone does
          this.#staging = mine
          mine.catch(error => {
            if (this.#reader === reader) this.endReader()
            reject(error)
          })
        }
      }
      notice = why => {
        const result = running.stop || why === 'told' ? 'stopped' : notRead(task, running.progress, why)
        staged.then(() => resolve({ result, staged }), reject)
      }
      reader.on('message', hear)
      reader.on('end', notice)
      reader.send(task)
    }).finally(() => {
      reader.off('message', hear)
      reader.off('end', notice)
    })
  }

  /** What the database knows when all that was sent is kept or lost: what a new process begins with. */
  async #keptEntries(): Promise<KnownTexts> {
    this.#staging = this.#staging.catch(() => {})
    await this.#staging
    const known = {} as KnownTexts
    for (const name of dictionaryNames) known[name] = await this.charges.entries.knownText(name)
    return known
  }

  /** When nothing is on its way any more, well or not. */
  async settled(): Promise<void> {
    await this.#staging.catch(() => {})
  }
}

/** What came of a delivery over which the reading process ended: it is refused, at the file that was being read. */
function notRead({ files }: ImportTask, { bytesDone, rows }: Underway['progress'], why: Exclude<ReadingEnd, 'told'>): ImportDone {
  let before = 0
  const file = files.find(({ bytes }) => (before += bytes) > bytesDone) ?? files.at(-1)!
  const [reason, mend] =
    why === 'too large'
      ? [
          `too large for this machine: reading it took more than ${readerLimitMb()} MB of memory`,
          'Deliver it in smaller parts, such as smaller row groups, or raise RAIN_BARREL_READER_MB.',
        ]
      : ['damaged: it ended the process that read it', 'Copy or export it again.']
  return {
    type: 'done',
    rows,
    files: files.map(({ name, bytes, sha256 }) => ({ name, bytes, sha256, rows: 0, periods: [] })),
    periodEnds: {},
    warnings: [],
    errorCount: 1,
    errors: [{ file: file.name, row: null, column: null, value: null, reason, mend }],
    conformance: mergeConformance([]),
    corrections: [],
    held: {},
  }
}
