// The thread that writes one file and ends.
import { parentPort, workerData } from 'node:worker_threads'
import { makeDocument } from '../../core/estimate/documents/document'
import { writers } from '../exports/estimate'
import type { ExportTask } from '../exports/estimate/writer'
import type { SavingsDocument } from '../exports/savings/savings-document'
import type { StatementsTask } from '../exports/statements/statements-task'
import { goGently } from './gentle'

goGently()

async function write(task: ExportTask | { statements: StatementsTask } | { savings: SavingsDocument }): Promise<Uint8Array> {
  if ('savings' in task) return (await import('../exports/savings/savings-pdf')).savingsPdf(task.savings)
  if ('statements' in task) return (await import('../exports/statements/statements-file')).statementsFile(task.statements)
  const writer = await writers[task.format]()
  return writer.write(makeDocument(task.estimate, task.prices, task.audience, task.facts), task)
}

const port = parentPort!
write(workerData as Parameters<typeof write>[0]).then(
  bytes => port.postMessage({ bytes }),
  (error: Error) => port.postMessage({ error: error.stack ?? error.message }),
)
