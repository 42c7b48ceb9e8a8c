// The thread that holds all charges in memory and answers questions about them.
import { parentPort } from 'node:worker_threads'
import type { Rate } from '../../core/money/rates'
import { scaledText } from '../../core/money/scaled'
import { answer, answersPacked, plainGroups, type Group } from '../../core/spend/answer'
import { answerIn, answersIn, type Converted, type PackedConverted } from '../../core/spend/convert'
import { foundDimensions, inheritedTagKeys } from '../../core/spend/coding'
import { compare, type Comparison, type CompareQuestion } from '../../core/spend/compare'
import { covered } from '../../core/spend/covered'
import { Cube, chunkKey, type Chunk } from '../../core/spend/cube'
import { columnDimensions } from '../../core/spend/dimension'
import { groupCharges, narrowedIds, type NarrowedIds } from '../../core/spend/group'
import type { PackedAnswer } from '../../core/spend/packed'
import type { Answer, Grouping, Question, Scope } from '../../core/spend/question'
import { findPlaces, firstDay, type FoundPlace } from '../../core/spend/find'
import { lateReports, tagCoverage, type LateReport, type TagDay } from '../../core/spend/tag-coverage'
import { dataDays, sourceDays, type SourceDays } from '../../core/spend/freshness'
import type { SpendReference } from '../../core/spend/reference'
import { hourOf } from '../../core/spend/segment'
import { segmentSums } from '../../core/spend/segment-sums'
import type { DictionaryName } from '../../core/focus/star'
import type { ImportPeriod } from '../../shared/contracts/imports'
import { decodeSegment } from '../charges/segment-codec'

export type ChunkName = { source: string; billingPeriodStart: string }
export type NewEntries = { dictionary: DictionaryName; entries: [id: number, ...values: (string | null)[]][] }
/** The charges of a billing period as they are kept, and how many there are to be. */
export type StagedChunk = Omit<Chunk, 'segments'> & { rows: number; segments: Uint8Array[] }
/** What is known beside the charges. */
export type Beside = { reference: SpendReference; rates: Rate[] }
/** What makes everything staged count, at once; where nothing is said beside the charges, what was known stays. */
export type CubeUpdate = { revision: number; gone: ChunkName[] } & Partial<Beside>
/** A question as it comes in: in one currency where it names one. */
export type Asked = Question & { reportCurrency?: string }
export type CubeFacts = {
  columns: string[]
  unused: { name: string; since: string }[]
  found: string[]
  inherited: string[]
  tags: string[]
  firstDay: string | null
  lastDay: string | null
  currencies: string[]
  charges: number
  hourly: boolean
  sources: SourceDays[]
  /** Billing periods whose kept charges are damaged: they are in no answer. */
  damaged: ChunkName[]
}

export type CubeCalls = {
  /** Dictionary entries, before the charges that need them. */
  enter: (entries: NewEntries) => null
  /** Charges that count with the next update. */
  stage: (chunk: StagedChunk) => null
  update: (update: CubeUpdate) => null
  refer: (beside: Beside) => null
  answer: (question: Asked) => Answer | Converted
  /** Several questions of one state of the data, their rows packed. */
  answers: (questions: Asked[]) => (PackedAnswer | PackedConverted)[]
  compare: (question: CompareQuestion & { reportCurrency?: string }) => Comparison
  group: (question: Grouping) => Group[]
  /** The conditions of a scope as dictionary ids, and how many charges they leave. */
  narrowed: (scope: Scope) => NarrowedIds & { charges: number }
  /** The first day on which each of some dimensions has a value of the charge's own; null for never. */
  firstDays: (dimensions: string[]) => (string | null)[]
  tagCoverage: (asked: { scope: Scope; dimension: string }) => TagDay[]
  lateReports: (asked: { scope: Scope; dimension: string }) => LateReport[]
  /** The days that charges cover, and which sources have delivered them. */
  covered: (scope: Scope) => ReturnType<typeof covered>
  /** Places whose name or id holds a text. */
  find: (text: string) => FoundPlace[]
  facts: () => CubeFacts
  /** Sums of billing periods as they are in memory, by currency. */
  sums: (periods: ChunkName[]) => ImportPeriod[]
}
export type CubeRequest = { [K in keyof CubeCalls]: { id: number; call: K; argument: Parameters<CubeCalls[K]>[0] } }[keyof CubeCalls]
export type CubeReply = { id: number; revision: number; result: unknown } | { id: number; error: string }

const cube = new Cube()
let revision = 0
let rates: Rate[] = []
let known: CubeFacts | null = null

const staged = new Map<string, Chunk | ChunkName>()
const damaged = new Map<string, ChunkName>()
const nameOf = ({ source, billingPeriodStart }: ChunkName): ChunkName => ({ source, billingPeriodStart })
const keyOf = (name: ChunkName) => chunkKey(name.source, name.billingPeriodStart)

function facts(): CubeFacts {
  const used = columnDimensions.filter(({ name }) => cube.coding(name).values.length > 1)
  const found = foundDimensions(cube)
  const sources = sourceDays(cube)
  return {
    columns: used.map(({ name }) => name),
    unused: columnDimensions.filter(column => !used.includes(column)),
    found,
    inherited: inheritedTagKeys(cube),
    tags: found.filter(name => name.startsWith('Tags/')),
    currencies: [...cube.currencies].sort(),
    charges: cube.rows,
    hourly: [...cube.segments()].some(({ time }) => time.starts.some(start => hourOf(start) % 24 !== 0)),
    firstDay: null,
    lastDay: null,
    ...dataDays(sources),
    sources,
    damaged: [...damaged.values()],
  }
}

const answerAsked = ({ reportCurrency, ...question }: Asked) =>
  reportCurrency ? answerIn(cube, question, reportCurrency, rates) : answer(cube, question)

const calls: CubeCalls = {
  enter({ dictionary, entries }) {
    for (const [id, ...values] of entries) cube.addEntry(dictionary, id, values)
    return null
  },
  stage(chunk) {
    const segments = chunk.segments.map(bytes => decodeSegment(bytes, currency => cube.currencyCode(currency)))
    const whole = segments.filter(segment => segment !== null)
    const isWhole = whole.length === segments.length && whole.reduce((n, { rows }) => n + rows, 0) === chunk.rows
    const { rows: _, ...own } = chunk
    staged.set(keyOf(chunk), isWhole ? { ...own, segments: whole } : nameOf(chunk))
    return null
  },
  update(update) {
    if (update.reference) cube.setReference(update.reference)
    if (update.rates) rates = update.rates
    for (const name of update.gone) {
      cube.removeChunk(name.source, name.billingPeriodStart)
      damaged.delete(keyOf(name))
      staged.delete(keyOf(name))
    }
    for (const [key, chunk] of staged) {
      if ('segments' in chunk) {
        cube.setChunk(chunk)
        damaged.delete(key)
      } else {
        cube.removeChunk(chunk.source, chunk.billingPeriodStart)
        damaged.set(key, chunk)
      }
    }
    staged.clear()
    revision = update.revision
    known = null
    return null
  },
  refer(update) {
    cube.setReference(update.reference)
    rates = update.rates
    known = null
    return null
  },
  answer: answerAsked,
  answers(questions) {
    // what is asked in one currency, or as billed, is answered together: much of it is the same charges, split further
    const found = new Array<PackedAnswer | PackedConverted>(questions.length)
    for (const currency of new Set(questions.map(question => question.reportCurrency))) {
      const places = questions.flatMap((question, i) => (question.reportCurrency === currency ? [i] : []))
      const own = places.map((i): Question => {
        const { reportCurrency: _, ...question } = questions[i]!
        return question
      })
      const answers = currency ? answersIn(cube, own, currency, rates) : answersPacked(cube, own)
      answers.forEach((answer, k) => {
        found[places[k]!] = answer
      })
    }
    return found
  },
  compare: ({ reportCurrency, ...question }) => compare(cube, question, reportCurrency ? { currency: reportCurrency, rates } : undefined),
  group: question => plainGroups(cube, question),
  narrowed(scope) {
    const groups = groupCharges(cube, { ...scope, splitBy: [], grain: null, measures: [] })
    return { ...narrowedIds(cube, scope), charges: groups.counts.reduce((a, b) => a + b, 0) }
  },
  firstDays: dimensions => dimensions.map(dimension => firstDay(cube, dimension)),
  tagCoverage: ({ scope, dimension }) => tagCoverage(cube, scope, dimension),
  lateReports: ({ scope, dimension }) => lateReports(cube, scope, dimension),
  covered: scope => covered(cube, scope),
  find: text => findPlaces(cube, text),
  facts: () => (known ??= facts()),
  sums: periods =>
    periods.flatMap(name => {
      const chunk = cube.chunks.get(keyOf(name))
      return chunk
        ? segmentSums(chunk.segments, cube.currencies).map(({ currency, rows, billed, effective }) => ({
            billingPeriodStart: name.billingPeriodStart,
            currency,
            rows,
            billedCost: scaledText(billed),
            effectiveCost: scaledText(effective),
          }))
        : []
    }),
}

parentPort!.on('message', ({ id, call, argument }: CubeRequest) => {
  try {
    const result = (calls[call] as (argument: unknown) => unknown)(argument)
    parentPort!.postMessage({ id, revision, result } satisfies CubeReply)
  } catch (error) {
    parentPort!.postMessage({ id, error: (error as Error).message } satisfies CubeReply)
  }
})
