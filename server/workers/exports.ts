// The thread that writes one file and ends.
import { parentPort, workerData } from 'node:worker_threads'
import { makeDocument } from '../../core/estimate/document'
import { writers } from '../exports'
import type { ExportTask } from '../exports/writer'

const task = workerData as ExportTask
const port = parentPort!
try {
  const document = makeDocument(task.estimate, task.prices, task.audience, task.facts)
  const writer = writers.find(w => w.format === task.format)!
  Promise.resolve(writer.write(document, task)).then(bytes => port.postMessage({ bytes }), (error: Error) => port.postMessage({ error: error.stack ?? error.message }))
}
catch (error) {
  port.postMessage({ error: (error as Error).stack ?? String(error) })
}
