// The thread that reads one file of measurements and ends.
import { parentPort, workerData } from 'node:worker_threads'
import { MeasurementReader } from '../../core/measured/measurement-reader'
import { csvReader, decodeUtf8 } from '../imports/readers/csv'
import { NOT_UTF8, UnreadableFile, type RowTarget } from '../imports/readers/reader'
import type { MeasurementFileRead } from '../observed/measurement-file'
import { goGently } from './gentle'

goGently()

async function read(path: string): Promise<MeasurementFileRead> {
  const reader = new MeasurementReader()
  let line = 1
  let problem: string | null = null
  const target: RowTarget = {
    compares: false,
    begin(header) {
      problem = reader.begin(header)
      return problem === null
    },
    bytes(bytes, cells, starts, ends) {
      const texts = Array.from({ length: cells }, (_, i) => decodeUtf8(bytes.subarray(starts[i], ends[i])) ?? NOT_UTF8)
      reader.row(++line, texts)
    },
    texts: cells => reader.row(++line, cells),
  }
  try {
    // one chunk after the other
    for await (const _ of csvReader.read(path, target, {}));
  } catch (error) {
    if (!(error instanceof UnreadableFile)) throw error
    return { problem: error.problem }
  }
  if (problem !== null)
    return { problem: { reason: problem, mend: 'The first line names the columns: resource, metric, unit, time, value.' } }
  const { rows, refused, wrong } = reader
  return { rows, refused, wrong, days: reader.days() }
}

parentPort!.postMessage(await read((workerData as { path: string }).path))
