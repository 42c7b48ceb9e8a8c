// The process that reads and checks deliveries, one after the other. It sends checked charges in batches and waits while too many are under
// way.
import { checkHeader } from '../../core/focus/check'
import { mergeConformance, type Conformance } from '../../core/focus/conformance'
import type { TakenCharge } from '../../core/focus/intake/charge'
import { dictionaryNames } from '../../core/focus/star'
import { beyondScaled, fromLimbs } from '../../core/money/limbs'
import { scaledText, type Scaled } from '../../core/money/scaled'
import { runsOf } from '../../core/time/day-runs'
import { instantOf } from '../../core/time/instant'
import type { ImportError, ImportFile, ImportPeriod } from '../../shared/contracts/imports'
import { EntryIds, entryTexts, idsFrom, knownFrom, type IdTexts, type NewEntries } from '../charges/entry-ids'
import type { Held } from '../db/schema'
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

const billingAccountPlace = dictionaryNames.indexOf('billingAccount')
const subAccountPlace = dictionaryNames.indexOf('subAccount')
const chargeKindPlace = dictionaryNames.indexOf('chargeKind')

const send = (message: ImportMessage) => process.send!(message)
// whoever wanted it read is gone
process.on('disconnect', () => process.exit(0))

type Sum = {
  period: number
  currency: string
  rows: number
  billed: Scaled
  effective: Scaled
  high: number
  low: number
  effectiveHigh: number
  effectiveLow: number
  pending: number
}
/** So many limbs are added as floats before they are carried over. */
const CARRY_ROWS = 1000

function carry(sum: Sum): void {
  sum.billed += fromLimbs(sum.high, sum.low)
  sum.effective += fromLimbs(sum.effectiveHigh, sum.effectiveLow)
  sum.high = sum.low = sum.effectiveHigh = sum.effectiveLow = sum.pending = 0
}

/** Sums per billing period and currency. Neighbours mostly belong to the same, which is looked at first. */
class Sums {
  #all = new Map<string, Sum>()
  #last: Sum | null = null

  add({ times: { BillingPeriodStart: period }, currency, high, low, beyond }: TakenCharge): void {
    let sum = this.#last
    if (!sum || sum.period !== period || sum.currency !== currency) {
      const key = `${period} ${currency}`
      sum = this.#all.get(key) ?? {
        period,
        currency,
        rows: 0,
        billed: 0n,
        effective: 0n,
        high: 0,
        low: 0,
        effectiveHigh: 0,
        effectiveLow: 0,
        pending: 0,
      }
      this.#all.set(key, sum)
      this.#last = sum
    }
    sum.rows++
    // billed and effective are the first two numbers; an amount beyond a thousandth of what is exact is carried by itself
    if (Math.abs(high[0]!) > 1e12 || Math.abs(high[1]!) > 1e12 || beyond[0] !== 0 || beyond[1] !== 0) {
      sum.billed += fromLimbs(high[0]!, low[0]!) + beyondScaled(beyond[0]!)
      sum.effective += fromLimbs(high[1]!, low[1]!) + beyondScaled(beyond[1]!)
      return
    }
    sum.high += high[0]!
    sum.low += low[0]!
    sum.effectiveHigh += high[1]!
    sum.effectiveLow += low[1]!
    if (++sum.pending === CARRY_ROWS) carry(sum)
  }

  periods(): ImportPeriod[] {
    return [...this.#all.values()]
      .sort((a, b) => a.period - b.period || (a.currency < b.currency ? -1 : 1))
      .map(sum => {
        carry(sum)
        return {
          billingPeriodStart: instantOf(sum.period),
          currency: sum.currency,
          rows: sum.rows,
          billedCost: scaledText(sum.billed),
          effectiveCost: scaledText(sum.effective),
        }
      })
  }
}

/** What was met of a billing period: its billing accounts with their sub accounts, by numbers of entries, and the days charges start on. */
type Period = { end: number; accounts: Map<number, Set<number>>; days: Set<number> }

/** One delivery while it is read. */
class Delivery {
  readonly #errors: ImportError[] = []
  #errorCount = 0
  #rows = 0
  readonly #entryIds: EntryIds
  readonly #segments = new SegmentBuilder()
  readonly #periods = new Map<number, Period>()
  readonly #warnings: string[] = []
  readonly #reports: Conformance[] = []
  readonly #corrections = new Sums()
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
    const byPeriod = [...this.#periods].sort(([a], [b]) => a - b)
    return {
      type: 'done',
      rows: this.#rows,
      files,
      errorCount: this.#errorCount,
      errors: this.#errors,
      warnings: this.#warnings,
      conformance: mergeConformance(this.#reports),
      corrections: this.#corrections.periods(),
      periodEnds: Object.fromEntries(byPeriod.map(([start, { end }]) => [instantOf(start), instantOf(end)])),
      held: Object.fromEntries(
        byPeriod.map(([start, { accounts, days }]) => [instantOf(start), this.#held(isGood ? accounts : null, days)]),
      ),
    }
  }

  #held(accounts: Period['accounts'] | null, days: Set<number>): Held {
    const pairs = [...(accounts ?? [])].flatMap(([account, subAccounts]) =>
      [...subAccounts].map((subAccount): [number, number] => [
        this.#entryIds.id('billingAccount', account),
        this.#entryIds.id('subAccount', subAccount),
      ]),
    )
    return { accounts: pairs, days: runsOf(days) }
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
    const sums = new Sums()
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

  #target(file: string, sums: Sums): ChargeTarget {
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
        this.#period(charge, file, target.rows)
        sums.add(charge)
        if (this.#corrects[charge.keys[chargeKindPlace]!]) this.#corrections.add(charge)
        if (this.#errorCount > 0) return // after the first error nothing will be loaded; only checking goes on
        this.#segments.add(charge)
      },
    })
    return target
  }

  /** What the charge before was of. */
  #lastStart = NaN
  #lastEnd = NaN
  #lastAccount = -1
  #lastSubAccount = -1
  #lastDay = NaN

  #period({ times, keys }: TakenCharge, file: string, row: number): void {
    const { BillingPeriodStart: start, BillingPeriodEnd: end } = times
    const account = keys[billingAccountPlace]!
    const subAccount = keys[subAccountPlace]!
    const day = Math.floor(times.ChargePeriodStart / 86_400)
    if (
      start === this.#lastStart &&
      day === this.#lastDay &&
      subAccount === this.#lastSubAccount &&
      account === this.#lastAccount &&
      end === this.#lastEnd
    )
      return
    let period = this.#periods.get(start)
    if (!period) this.#periods.set(start, (period = { end, accounts: new Map(), days: new Set() }))
    const subAccounts = period.accounts.get(account)
    if (subAccounts) subAccounts.add(subAccount)
    else period.accounts.set(account, new Set([subAccount]))
    period.days.add(day)
    if (period.end !== end) {
      this.#note(file, {
        row,
        column: 'BillingPeriodEnd',
        value: instantOf(end),
        reason: `other charges of the period that starts ${instantOf(start)} end it at ${instantOf(period.end)}`,
        mend: 'Give all charges of a billing period the same end.',
      })
      return // said again for each such charge
    }
    this.#lastStart = start
    this.#lastEnd = end
    this.#lastAccount = account
    this.#lastSubAccount = subAccount
    this.#lastDay = day
  }
}

async function carryOut(task: ImportTask): Promise<void> {
  try {
    send(await new Delivery(task).read())
  } catch (error) {
    send({ type: 'fault', message: (error as Error).message })
  }
}
