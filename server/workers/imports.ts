// The thread that reads and checks the files of a delivery. It sends checked charges in batches and waits while too many are under way.
import { parentPort, workerData } from 'node:worker_threads'
import { checkHeader, rowCheck, roundingSentence, type RowCheck } from '../../core/focus/check'
import { Decimal } from '../../core/money/decimal'
import { scaledText, type Scaled } from '../../core/money/scaled'
import type { ImportError, ImportFile, ImportPeriod } from '../../shared/contracts/imports'
import { ChargeEncoder, type KnownEntries, type NewEntries } from '../imports/encode'
import { readCsv, UnreadableFile } from '../imports/readers/csv'

export type ImportTask = { loadId: number, files: { name: string, path: string, bytes: number, sha256: string }[], known: KnownEntries }
export type ImportMessage =
  | { type: 'batch', entries: NewEntries, lines: Uint8Array }
  | { type: 'progress', bytesDone: number, rows: number, errorCount: number }
  | { type: 'done', rows: number, files: ImportFile[], periodEnds: Record<string, string>, warnings: string[], errorCount: number, errors: ImportError[] }
  | { type: 'fault', message: string }

const BATCH_ROWS = 20_000
const MOST_ERRORS = 1000
const MOST_UNDER_WAY = 2

const task = workerData as ImportTask
const port = parentPort!
let underWay = 0
let goOn: (() => void) | null = null
port.on('message', () => {
  underWay--
  goOn?.()
})

const errors: ImportError[] = []
let errorCount = 0
let rows = 0
const encoder = new ChargeEncoder(task.known, task.loadId)
const periodEnds: Record<string, string> = {}
const roundings = new Map<string, { count: number, difference: Decimal }>()
let lines: string[] = []

const send = (message: ImportMessage) => port.postMessage(message)
const note = (file: string, problem: Omit<ImportError, 'file'>) => {
  errorCount++
  if (errors.length < MOST_ERRORS) errors.push({ file, ...problem })
}

async function flush() {
  if (!lines.length) return
  while (underWay >= MOST_UNDER_WAY) {
    await new Promise<void>((resolve) => {
      goOn = resolve
    })
  }
  underWay++
  send({ type: 'batch', entries: encoder.takeNew(), lines: Buffer.from(lines.join('\n') + '\n') })
  lines = []
}

type Sums = Map<string, { billingPeriodStart: string, currency: string, rows: number, billed: Scaled, effective: Scaled }>

async function readFile(file: ImportTask['files'][number], bytesBefore: number): Promise<ImportFile> {
  const sums: Sums = new Map()
  let fileRows = 0
  let check: RowCheck | null = null
  let header: string[] = []
  let broken = false
  try {
    for await (const { records, bytesDone } of readCsv(file.path)) {
      for (const cells of records) {
        if (!check) {
          header = cells
          const problems = checkHeader(header)
          problems.forEach(problem => note(file.name, problem))
          if (problems.length) broken = true
          else check = rowCheck(header)
          if (broken) break
          continue
        }
        fileRows++
        const nul = cells.findIndex(cell => cell.includes('\0'))
        if (nul >= 0) {
          note(file.name, { row: fileRows, column: header[nul] ?? null, value: null, reason: 'the text holds a NUL byte', mend: 'Take the byte out; text cannot hold it.' })
          continue
        }
        const checked = check(cells, fileRows)
        if ('problems' in checked) {
          checked.problems.forEach(problem => note(file.name, problem))
          continue
        }
        const { charge } = checked
        for (const { column, difference } of checked.roundings) {
          const known = roundings.get(column)
          roundings.set(column, { count: (known?.count ?? 0) + 1, difference: (known?.difference ?? new Decimal(0)).plus(difference) })
        }
        const knownEnd = periodEnds[charge.billingPeriodStart] ??= charge.billingPeriodEnd
        if (knownEnd !== charge.billingPeriodEnd) {
          note(file.name, { row: fileRows, column: 'BillingPeriodEnd', value: charge.billingPeriodEnd, reason: `other charges of the period that starts ${charge.billingPeriodStart} end it at ${knownEnd}`, mend: 'Give all charges of a billing period the same end.' })
        }
        const key = `${charge.billingPeriodStart} ${charge.billingCurrency}`
        const sum = sums.get(key) ?? { billingPeriodStart: charge.billingPeriodStart, currency: charge.billingCurrency, rows: 0, billed: 0n, effective: 0n }
        sums.set(key, sum)
        sum.rows++
        sum.billed += charge.amounts.BilledCost
        sum.effective += charge.amounts.EffectiveCost
        if (errorCount === 0) { // after the first error nothing will be loaded; only checking goes on
          lines.push(encoder.line(charge))
          if (lines.length >= BATCH_ROWS) await flush()
        }
      }
      if (broken) break
      send({ type: 'progress', bytesDone: bytesBefore + bytesDone, rows: rows + fileRows, errorCount })
    }
    if (!check && !broken) checkHeader([]).forEach(problem => note(file.name, problem))
    else if (check && fileRows === 0) note(file.name, { row: null, column: null, value: null, reason: 'the file has no charges below its header', mend: 'Export the billing period again.' })
  }
  catch (error) {
    if (!(error instanceof UnreadableFile)) throw error
    note(file.name, error.problem)
  }
  rows += fileRows
  const periods: ImportPeriod[] = [...sums.values()].sort((a, b) => a.billingPeriodStart < b.billingPeriodStart ? -1 : 1)
    .map(({ billingPeriodStart, currency, rows, billed, effective }) => ({ billingPeriodStart, currency, rows, billedCost: scaledText(billed), effectiveCost: scaledText(effective) }))
  return { name: file.name, bytes: file.bytes, sha256: file.sha256, rows: fileRows, periods }
}

try {
  const files: ImportFile[] = []
  let bytesBefore = 0
  for (const file of task.files) {
    files.push(await readFile(file, bytesBefore))
    bytesBefore += file.bytes
    send({ type: 'progress', bytesDone: bytesBefore, rows, errorCount })
  }
  if (errorCount === 0) await flush()
  send({
    type: 'done', rows, files, periodEnds, errorCount, errors,
    warnings: [...roundings].map(([column, { count, difference }]) => roundingSentence(column, count, difference)),
  })
}
catch (error) {
  send({ type: 'fault', message: (error as Error).message })
}
