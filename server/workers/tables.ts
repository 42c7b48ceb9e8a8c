// The thread that writes one table as a file and ends.
import { parentPort, workerData } from 'node:worker_threads'
import { tableWriters } from '../exports/tables'
import type { FileTable, TableFormat } from '../exports/tables/table-writer'

const { format, table } = workerData as { format: TableFormat; table: FileTable }
const port = parentPort!
tableWriters
  .find(w => w.format === format)!
  .write(table)
  .then(
    bytes => port.postMessage({ bytes }),
    (error: Error) => port.postMessage({ error: error.stack ?? error.message }),
  )
