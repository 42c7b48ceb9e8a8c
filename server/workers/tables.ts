// The thread that writes one table as a file and ends.
import { parentPort, workerData } from 'node:worker_threads'
import { tableWriters } from '../exports/tables'
import { spendFileTable } from '../exports/tables/spend-table'
import { factLines, type FileTable } from '../exports/tables/table-writer'
import type { TableFormat } from '../../shared/table-formats'
import type { TableTask } from '../exports/tables/table-task'
import { goGently } from './gentle'

goGently()

const write = (format: TableFormat, table: FileTable) => tableWriters[format].write(table)

async function written(task: TableTask): Promise<Uint8Array> {
  if ('table' in task) return write(task.format, task.table)
  const { format, part } = task.spend.asked
  const table = spendFileTable(task.spend)
  return part === 'notes' ? new TextEncoder().encode(factLines(table)) : write(format, table)
}

const port = parentPort!
written(workerData as TableTask).then(
  bytes => port.postMessage({ bytes }),
  (error: Error) => port.postMessage({ error: error.stack ?? error.message }),
)
