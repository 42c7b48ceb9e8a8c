// The process that reads and checks deliveries, one after the other. It sends checked charges in batches and waits while too many are under
// way.
import { checkHeader } from '../../core/focus/check'
import { mergeConformance, type Conformance } from '../../core/focus/conformance'
import { dictionaryNames } from '../../core/focus/star'
import type { ImportError, ImportFile } from '../../shared/contracts/imports'
import { EntryIds, entryTexts, idsFrom, knownFrom, type IdTexts, type NewEntries } from '../charges/entry-ids'
import { MetPeriods } from '../imports/met-periods'
import { PeriodSums } from '../imports/period-sums'
import { readerFor } from '../imports/readers'
import { UnreadableFile } from '../imports/readers/reader'
import { SegmentBuilder, type FullSegment } from '../charges/segment-builder'
import type { ImportDone, ImportMessage, ImportTask } from '../imports/reading-messages'
import { ChargeTarget } from '../imports/targets'
import { goGently } from './gentle'

goGently()

const MOST_ERRORS = 1000
const MOST_UNDER_WAY = 2

let entryIds: EntryIds | null = null
let underWay = 0
let goOn: (() => void) | null = null
let takeIds: ((ids: IdTexts) => void) | null = null
process.on('message', (message: ImportTask | { ids: IdTexts } | 'next') => {
  if (message === 'next') {
    underWay--
    goOn?.()
  } else if ('ids' in message) takeIds?.(message.ids)
  else void carryOut(message)
})

const chargeKindPlace = dictionaryNames.indexOf('chargeKind')

const send = (message: ImportMessage) => process.send!(message)
// whoever wanted it read is gone
process.on('disconnect', () => process.exit(0))

/** One delivery while it is read. */
class Delivery {
  readonly #errors: ImportError[] = []
  #errorCount = 0
  #rows = 0
  readonly #entryIds: EntryIds
  readonly #segments = new SegmentBuilder()
  readonly #periods = new MetPeriods()
  readonly #warnings: string[] = []
  readonly #reports: Conformance[] = []
  readonly #corrections = new PeriodSums()
  /** Until all that is ready has been sent. */
  #sent: Promise<void> = Promise.resolve()
  /** Whether an entry of the charge kinds is a correction, by its number. */
  readonly #corrects: boolean[] = []

  constructor(private readonly task: ImportTask) {
    if (task.known) entryIds = new EntryIds(knownFrom(task.known))
    if (!entryIds) throw new Error('the reading process was not told what the database knows')
    this.#entryIds = entryIds
  }

  async read(): Promise<ImportDone> {
    const files: ImportFile[] = []
    let bytesBefore = 0
    const read = new Map<string, string>()
    for (const file of this.task.files) {
      const same = read.get(file.sha256)
      read.set(file.sha256, same ?? file.name)
      if (same === undefined) files.push(await this.#readFile(file, bytesBefore))
      else {
        files.push({ name: file.name, bytes: file.bytes, sha256: file.sha256, rows: 0, periods: [] })
        this.#warnings.push(`${file.name} holds the same bytes as ${same}: its charges count once`)
      }
      bytesBefore += file.bytes
      this.#progress(bytesBefore, this.#rows)
    }
    const isGood = this.#errorCount === 0
    if (isGood) await this.#flush(this.#segments.finish())
    await this.#sent
    return {
      type: 'done',
      rows: this.#rows,
      files,
      errorCount: this.#errorCount,
      errors: this.#errors,
      warnings: this.#warnings,
      conformance: mergeConformance(this.#reports),
      corrections: this.#corrections.periods(),
      periodEnds: this.#periods.ends(),
      held: this.#periods.held(isGood ? (name, number) => this.#entryIds.id(name, number) : null),
    }
  }

  #note(file: string, problem: Omit<ImportError, 'file'>): void {
    this.#errorCount++
    if (this.#errors.length < MOST_ERRORS) this.#errors.push({ file, ...problem })
  }

  #progress(bytesDone: number, rows: number): void {
    send({ type: 'progress', bytesDone, rows, errorCount: this.#errorCount })
  }

  async #flush(segments: FullSegment[]): Promise<void> {
    while (underWay >= MOST_UNDER_WAY) {
      await new Promise<void>(resolve => {
        goOn = resolve
      })
    }
    underWay++
    const entries = this.#entryIds.takeNew()
    const sent = this.#sent.then(() => this.#send(entries, segments))
    sent.catch(() => {}) // told where the last is waited for
    this.#sent = sent
  }

  /** Gets ids for entries, then sends segments whose keys are these; reading goes on meanwhile. */
  async #send(entries: NewEntries, full: FullSegment[]): Promise<void> {
    if (Object.keys(entries).length) {
      const ids = new Promise<IdTexts>(resolve => {
        takeIds = resolve
      })
      send({ type: 'entries', entries: entryTexts(entries) })
      this.#entryIds.give(idsFrom(await ids))
    }
    const segments = full.map(segment => this.#segments.encode(segment, (name, key) => this.#entryIds.id(name, key)))
    send({ type: 'segments', segments })
  }

  async #readFile(file: ImportTask['files'][number], bytesBefore: number): Promise<ImportFile> {
    const sums = new PeriodSums()
    const target = this.#target(file.name, sums)
    try {
      for await (const bytesDone of readerFor(file.path).read(file.path, target, this.task.mapping ?? {})) {
        this.#progress(bytesBefore + bytesDone, this.#rows + target.rows)
        if (this.#segments.anyFull) await this.#flush(this.#segments.takeFull())
      }
      if (!target.begun) checkHeader([]).forEach(problem => this.#note(file.name, problem))
      else if (target.conformance && target.rows === 0)
        this.#note(file.name, {
          row: null,
          column: null,
          value: null,
          reason: 'the file has no charges below its header',
          mend: 'Export the billing period again.',
        })
    } catch (error) {
      if (!(error instanceof UnreadableFile)) throw error
      this.#note(file.name, error.problem)
    }
    this.#rows += target.rows
    if (target.conformance) this.#reports.push(target.conformance)
    for (const { sentence } of target.warnings) this.#warnings.push(this.task.files.length > 1 ? `${file.name}, ${sentence}` : sentence)
    return { name: file.name, bytes: file.bytes, sha256: file.sha256, rows: target.rows, periods: sums.periods() }
  }

  #target(file: string, sums: PeriodSums): ChargeTarget {
    const { source, mapping } = this.task
    const target: ChargeTarget = new ChargeTarget({
      file,
      source,
      mapping,
      note: problem => this.#note(file, problem),
      entryId: (name, values) => {
        const id = this.#entryIds.number(name, values)
        if (name === 'chargeKind') this.#corrects[id] = values[1] === 'Correction'
        return id
      },
      take: charge => {
        const met = this.#periods.meet(charge)
        if (met) this.#note(file, { row: target.rows, column: 'BillingPeriodEnd', value: met.value, ...met.wrong })
        sums.add(charge)
        if (this.#corrects[charge.keys[chargeKindPlace]!]) this.#corrections.add(charge)
        if (this.#errorCount > 0) return // after the first error nothing will be loaded; only checking goes on
        this.#segments.add(charge)
      },
    })
    return target
  }
}

async function carryOut(task: ImportTask): Promise<void> {
  try {
    send(await new Delivery(task).read())
  } catch (error) {
    send({ type: 'fault', message: (error as Error).message })
  }
}
