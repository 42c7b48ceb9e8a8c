import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { Worker } from 'node:worker_threads'
import type { FileProblem } from '../../core/focus/problem'
import type { ReadDay } from '../../core/measured/measurement-reader'
import type { WrongLine } from '../../core/text/text-table'

/** What a file of measurements says, or why it cannot be read. */
export type MeasurementFileRead =
  { rows: number; refused: number; wrong: WrongLine[]; days: ReadDay[] } | { problem: Pick<FileProblem, 'reason' | 'mend'> }

/** Reads a file in a thread of its own, which ends with it. */
export function readMeasurementFile(serverDir: string, path: string): Promise<MeasurementFileRead> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(pathToFileURL(join(serverDir, 'workers/measurements.mjs')), { workerData: { path } })
    worker.on('message', resolve)
    worker.on('error', error => {
      const isMemory = (error as NodeJS.ErrnoException).code === 'ERR_WORKER_OUT_OF_MEMORY'
      if (isMemory) resolve({ problem: { reason: 'it is too large for the memory of this machine', mend: 'Send fewer days at once.' } })
      else reject(error as Error)
    })
    worker.on('exit', () => reject(new Error('the thread that reads measurements has ended')))
  })
}
