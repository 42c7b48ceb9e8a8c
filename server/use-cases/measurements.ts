import { randomUUID } from 'node:crypto'
import { rm } from 'node:fs/promises'
import { join } from 'node:path'
import { metrics } from '../../core/measured/metrics'
import type { MeasurementsState, MeasurementsTaken } from '../../shared/contracts/measurements'
import type { TakenIn } from '../imports/take-in'
import { readMeasurementFile } from '../observed/measurement-file'
import { Problem } from '../problems/problem'
import { addMeasured, dropFiled, filedMeasurements } from '../stores/measured'
import type { Work } from './work'

/** So many resources that are on no bill are named. */
const MOST_NAMED = 10

export async function measurementsState({ database }: Pick<Work, 'database'>): Promise<MeasurementsState> {
  return { metrics: Object.entries(metrics).map(([metric, facts]) => ({ metric, ...facts })), filed: await filedMeasurements(database.db) }
}

/**
 * Takes a file of measurements: what fits is kept, all of it or nothing.
 * @throws Problem when it cannot be read, or when none of its rows fits.
 */
export async function takeMeasurements(
  { database, dataDir, serverDir, seen, refreshMeasured }: Pick<Work, 'database' | 'dataDir' | 'serverDir' | 'seen' | 'refreshMeasured'>,
  file: string,
  receive: (name: string, path: string) => Promise<TakenIn>,
): Promise<MeasurementsTaken> {
  const path = join(dataDir, 'inbox', `measurements-${randomUUID()}`) // what is left there goes with the next start
  const taken = await receive(file, path)
  try {
    await taken.keep()
    const read = await readMeasurementFile(serverDir, path)
    if ('problem' in read)
      throw new Problem('invalid', 'unreadable', `«${file}» cannot be read`, `${read.problem.reason}. ${read.problem.mend}`)
    const { rows, refused, wrong, days } = read
    if (!days.length)
      throw new Problem(
        'invalid',
        'nothing-fits',
        rows ? 'No row of the file fits' : 'The file has no rows',
        wrong.length ? `line ${wrong[0]!.line}: ${wrong[0]!.why}` : 'Below the names of the columns there is nothing.',
        wrong.map(({ line, why }) => ({ field: `line ${line}`, reason: why })),
      )
    await addMeasured(database.db, days)
    await refreshMeasured()
    const resources = [...new Set(days.flatMap(({ hours }) => [...hours.keys()]))]
    const { result: unknown } = await seen.ask('notBilled', { resources })
    return {
      ...{ file, rows, refused, wrong, resources: resources.length },
      days: new Set(days.map(({ day }) => day)).size,
      unknown: unknown.length,
      unknownNames: unknown.slice(0, MOST_NAMED),
    }
  } finally {
    await rm(path, { force: true })
  }
}

export async function dropMeasurements({
  database,
  refreshMeasured,
}: Pick<Work, 'database' | 'refreshMeasured'>): Promise<{ days: number }> {
  const days = await dropFiled(database.db)
  await refreshMeasured()
  return { days }
}
