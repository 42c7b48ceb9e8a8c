import { join } from 'node:path'
import type { Readable } from 'node:stream'
import { pathToFileURL } from 'node:url'
import { Worker } from 'node:worker_threads'
import type { TableFormat } from '../../shared/table-formats'
import type { FileTable } from './tables/table-writer'
import type { LineSource } from './lines/charge-lines'
import type { LinesTask } from './lines/lines-file'
import { linesStream } from './lines/lines-stream'
import type { SpendTableTask } from './tables/spend-table'
import type { TableTask } from './tables/table-task'
import type { ExportTask } from './estimate/writer'
import type { SavingsDocument } from './savings/savings-document'
import type { StatementsTask } from './statements/statements-task'

type Reply = { bytes: Uint8Array } | { error: string }

/** Writes files in a thread of its own, which is started for each: a long document never stops the server answering. */
export class Exporter {
  constructor(private readonly serverDir: string) {}

  write(task: ExportTask): Promise<Uint8Array> {
    return this.#run('exports', task)
  }

  writeTable(format: TableFormat, table: FileTable): Promise<Uint8Array> {
    return this.#run('tables', { format, table } satisfies TableTask)
  }

  /** A table of spend, or the notes beside it. */
  writeSpendTable(spend: SpendTableTask): Promise<Uint8Array> {
    return this.#run('tables', { spend } satisfies TableTask)
  }

  /** The statements of a month. */
  writeStatements(statements: StatementsTask): Promise<Uint8Array> {
    return this.#run('exports', { statements })
  }

  /** What can be saved, as PDF. */
  writeSavings(savings: SavingsDocument): Promise<Uint8Array> {
    return this.#run('exports', { savings })
  }

  /** Charge lines, made while they are taken. */
  lines(kept: LineSource, task: LinesTask): Readable {
    return linesStream(this.serverDir, kept, task)
  }

  #run(thread: 'exports' | 'tables', workerData: unknown): Promise<Uint8Array> {
    const worker = new Worker(pathToFileURL(join(this.serverDir, `workers/${thread}.mjs`)), { workerData })
    return new Promise((resolve, reject) => {
      worker.once('message', (reply: Reply) => {
        if ('bytes' in reply) resolve(reply.bytes)
        else reject(new Error(reply.error))
        void worker.terminate()
      })
      worker.once('error', reject)
    })
  }
}
