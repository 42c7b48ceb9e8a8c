import type { JobProgress } from '../../shared/contracts/jobs'
import type { Db } from '../db/database'
import { noteProgress, type StoredJob } from '../stores/jobs'

const EVERY_MS = 500

/** @returns what writes into a job's row how far it is, now and then; it may be called as often as one likes. */
export function progressOf(db: Db, job: StoredJob, process: string): (progress: JobProgress) => void {
  let last = 0
  return progress => {
    const now = Date.now()
    if (now - last < EVERY_MS) return
    last = now
    noteProgress(db, job, process, progress).catch((error: unknown) => console.error('how far a job is could not be noted', error))
  }
}
