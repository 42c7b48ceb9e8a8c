import type { JobRunner } from './runner'
import type { z } from 'zod'
import { nextDue, type Every } from '../../core/time/rhythm'
import type { Watch, watchInput } from '../../shared/contracts/watches'
import { withConnector } from '../connectors/connect'
import type { Db } from '../db/database'
import { Problem } from '../problems/problem'
import { NotWatchable, watchable } from '../imports/watched-files'
import type { Tools } from '../use-cases/work'
import { jobsOf, putJob, removeJob } from '../stores/jobs'
import { addWatch, listWatches, removeWatch, type StoredWatch } from '../stores/watches'
import { bill } from './kinds/bill'
import { watchedFolder, watchJob } from './kinds/watched-folder'

const kindOf = ({ kind }: Pick<StoredWatch, 'kind'>) => (kind === 'folder' ? watchedFolder.kind : bill.kind)
const MINUTES: Record<Every['unit'], number> = { minute: 1, hour: 60, day: 1440, week: 10_080, month: 43_200 }

/**
 * Watches a folder or a connection: keeps what is watched, and the job that looks at it.
 * @throws Problem when it is a folder that cannot be watched.
 */
export async function startWatching(
  { database: { db }, dataDir }: Pick<Tools, 'database' | 'dataDir'>,
  { everyMinutes, ...input }: z.infer<typeof watchInput>,
  who: string,
): Promise<StoredWatch> {
  if (input.kind === 'folder') await mustBeWatchable(input.place, dataDir)
  return db.transaction(async tx => {
    const watch = await addWatch(tx, input, who)
    const argument = watch.kind === 'folder' ? { watch: watch.id } : { connection: watch.place }
    const every = { count: everyMinutes, unit: 'minute' } as const
    // whoever asks for it looks at once, and waits for what comes of it
    const now = new Date().toISOString()
    const due = nextDue(every, now, now)
    await putJob(tx, { kind: kindOf(watch), name: watchJob(watch.id), argument, every, due, tell: who })
    return watch
  })
}

async function mustBeWatchable(place: string, dataDir: string): Promise<void> {
  try {
    await watchable(place, dataDir)
  } catch (error) {
    if (error instanceof NotWatchable) throw new Problem('invalid', 'not-watchable', 'That folder cannot be watched', error.message)
    throw error
  }
}

/** @returns false when it is not watched. */
export async function stopWatching(db: Db, id: number): Promise<boolean> {
  return db.transaction(async tx => {
    await removeJob(tx, watchJob(id))
    return removeWatch(tx, id)
  })
}

/** What is watched, when it was looked at last and what came of it. */
export async function watched(db: Db): Promise<Watch[]> {
  const [watches, folders, bills] = await Promise.all([listWatches(db), jobsOf(db, watchedFolder.kind), jobsOf(db, bill.kind)])
  return watches.map(watch => {
    const job = folders.get(watchJob(watch.id)) ?? bills.get(watchJob(watch.id))
    const everyMinutes = job?.every ? job.every.count * MINUTES[job.every.unit] : 0
    return { ...watch, everyMinutes, lastAskedAt: job?.endedAt ?? null, lastSaid: job?.outcome ?? null }
  })
}

/** Looks at what is watched now. @returns what came of it, in words; also where it was in vain, which is tried again. */
export async function lookNow(jobs: JobRunner, watch: StoredWatch, who: string): Promise<string> {
  const name = watchJob(watch.id)
  const { said } = await withConnector<{ said: string }>(() =>
    watch.kind === 'folder' ? jobs.runNow(watchedFolder, name, who) : jobs.runNow(bill, name, who),
  )
  return said
}
