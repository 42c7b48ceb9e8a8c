// The thread that holds all charges in memory and answers questions about them.
import { parentPort } from 'node:worker_threads'
import type { Rate } from '../../core/money/rates'
import { answer, plainGroups, type Group } from '../../core/spend/answer'
import { answerIn, type Converted } from '../../core/spend/convert'
import { foundDimensions, inheritedTagKeys } from '../../core/spend/coding'
import { compare, type Comparison, type CompareQuestion } from '../../core/spend/compare'
import { Cube } from '../../core/spend/cube'
import { columnDimensions, columnPlace } from '../../core/spend/dimension'
import { groupCharges, narrowedIds, type NarrowedIds } from '../../core/spend/group'
import type { Answer, Grouping, Question, Scope } from '../../core/spend/question'
import { findPlaces, firstDay, type FoundPlace } from '../../core/spend/find'
import type { SpendReference } from '../../core/spend/reference'
import type { Segment } from '../../core/spend/segment'
import type { DictionaryName } from '../../core/focus/star'
import { dayFromNumber } from '../../core/time/day'
import { readBytesCopy, readChargeCopy } from '../engine/copy-binary'
import { decodeSegment } from '../engine/segment-codec'

export type ChunkUpdate = { source: string, billingPeriodStart: string, rows: number, segments?: Uint8Array, copy?: Uint8Array }
type ChunkName = { source: string, billingPeriodStart: string }
export type CubeUpdate = { revision: number, entries: { dictionary: DictionaryName, id: number, values: (string | null)[] }[], chunks: ChunkUpdate[], gone: ChunkName[], reference: SpendReference, rates: Rate[] }
/** A question as it comes in: in one currency where it names one. */
export type Asked = Question & { reportCurrency?: string }
export type CubeFacts = {
  columns: string[], unused: { name: string, since: string }[], found: string[], inherited: string[], tags: string[]
  firstDay: string | null, lastDay: string | null, currencies: string[], charges: number, hourly: boolean
  lastDayBySource: Record<string, string>, missingDays: Record<string, string[]>
}

export type CubeCalls = {
  /** @returns the chunks whose columns are damaged: their charges have to be read. */
  update: (update: CubeUpdate) => ChunkName[]
  refer: (known: { reference: SpendReference, rates: Rate[] }) => null
  answer: (question: Asked) => Answer | Converted
  /** Several questions of one state of the data. */
  answers: (questions: Asked[]) => (Answer | Converted)[]
  compare: (question: CompareQuestion) => Comparison
  group: (question: Grouping) => Group[]
  /** The conditions of a scope as dictionary ids, and how many charges they leave. */
  narrowed: (scope: Scope) => NarrowedIds & { charges: number }
  /** The first day on which each of some dimensions has a value of the charge's own; null for never. */
  firstDays: (dimensions: string[]) => (string | null)[]
  /** Places whose name or id holds a text. */
  find: (text: string) => FoundPlace[]
  facts: () => CubeFacts
  /** Which billing accounts each loaded billing period has charges of. */
  billingAccounts: () => (ChunkName & { accountIds: string[] })[]
}
export type CubeRequest = { [K in keyof CubeCalls]: { id: number, call: K, argument: Parameters<CubeCalls[K]>[0] } }[keyof CubeCalls]
export type CubeReply = { id: number, revision: number, result: unknown } | { id: number, error: string }

const cube = new Cube()
let revision = 0
let rates: Rate[] = []
let known: CubeFacts | null = null

function segmentsOf({ rows, segments, copy }: ChunkUpdate): Segment[] | null {
  const code = (currency: string) => cube.currencyCode(currency)
  if (copy) return readChargeCopy(copy, rows, code)
  const decoded = readBytesCopy(segments!).map(bytes => decodeSegment(bytes, code))
  if (decoded.some(segment => segment === null) || decoded.reduce((n, segment) => n + segment!.rows, 0) !== rows) return null
  return decoded as Segment[]
}

function facts(): CubeFacts {
  const days = new Map<string, Set<number>>()
  let hourly = false
  for (const chunk of cube.chunks.values()) {
    const own = days.get(chunk.source) ?? new Set<number>()
    days.set(chunk.source, own)
    for (const { rows, startHour } of chunk.segments) {
      let last = -1
      for (let row = 0; row < rows; row++) {
        const hour = startHour[row]!
        if (hour === last) continue
        last = hour
        own.add(Math.floor(hour / 24))
        if (hour % 24 !== 0) hourly = true
      }
    }
  }
  const ends = [...days].map(([source, set]) => ({ source, first: least(set), last: most(set), set })).filter(({ set }) => set.size)
  const used = columnDimensions.filter(({ name }) => cube.coding(name).values.length > 1)
  const found = foundDimensions(cube)
  const day = (number: number) => number === Infinity || number === -Infinity ? null : dayFromNumber(number)
  return {
    columns: used.map(({ name }) => name), unused: columnDimensions.filter(column => !used.includes(column)), found, inherited: inheritedTagKeys(cube), tags: found.filter(name => name.startsWith('Tags/')),
    currencies: [...cube.currencies].sort(), charges: cube.rows, hourly,
    firstDay: day(ends.reduce((n, { first }) => Math.min(n, first), Infinity)), lastDay: day(ends.reduce((n, { last }) => Math.max(n, last), -Infinity)),
    lastDayBySource: Object.fromEntries(ends.map(({ source, last }) => [source, dayFromNumber(last)])),
    missingDays: Object.fromEntries(ends.map(({ source, first, last, set }) => [source, Array.from({ length: last - first + 1 }, (_, i) => first + i).filter(n => !set.has(n)).map(dayFromNumber)])),
  }
}

const least = (set: Set<number>) => [...set].reduce((a, b) => Math.min(a, b), Infinity)
const most = (set: Set<number>) => [...set].reduce((a, b) => Math.max(a, b), -Infinity)

const answerAsked = ({ reportCurrency, ...question }: Asked) => reportCurrency ? answerIn(cube, question, reportCurrency, rates) : answer(cube, question)

const calls: CubeCalls = {
  update(update) {
    const damaged: ChunkName[] = []
    for (const { dictionary, id, values } of update.entries) cube.addEntry(dictionary, id, values)
    cube.setReference(update.reference)
    rates = update.rates
    for (const { source, billingPeriodStart } of update.gone) cube.removeChunk(source, billingPeriodStart)
    for (const chunk of update.chunks) {
      const { source, billingPeriodStart } = chunk
      const segments = segmentsOf(chunk)
      if (segments) cube.setChunk({ source, billingPeriodStart, segments })
      else damaged.push({ source, billingPeriodStart })
    }
    revision = update.revision
    known = null
    return damaged
  },
  refer(update) {
    cube.setReference(update.reference)
    rates = update.rates
    known = null
    return null
  },
  answer: answerAsked,
  answers: questions => questions.map(answerAsked),
  compare: question => compare(cube, question),
  group: question => plainGroups(cube, question),
  narrowed(scope) {
    const groups = groupCharges(cube, { ...scope, splitBy: [], grain: null, measures: [] })
    return { ...narrowedIds(cube, scope), charges: Array.from({ length: groups.size }, (_, i) => groups.count(i)).reduce((a, b) => a + b, 0) }
  },
  firstDays: dimensions => dimensions.map(dimension => firstDay(cube, dimension)),
  find: text => findPlaces(cube, text),
  facts: () => known ??= facts(),
  billingAccounts() {
    const place = columnPlace('billingAccount', 'BillingAccountId')
    return [...cube.chunks.values()].map(({ source, billingPeriodStart, segments }) => {
      const ids = new Set<number>()
      for (const { rows, keys } of segments) for (let row = 0; row < rows; row++) ids.add(keys.billingAccount[row]!)
      return { source, billingPeriodStart, accountIds: [...new Set([...ids].flatMap(id => cube.entries.billingAccount[id]?.[place] ?? []))] }
    })
  },
}

parentPort!.on('message', ({ id, call, argument }: CubeRequest) => {
  try {
    const result = (calls[call] as (argument: unknown) => unknown)(argument)
    parentPort!.postMessage({ id, revision, result } satisfies CubeReply)
  }
  catch (error) {
    parentPort!.postMessage({ id, error: (error as Error).message } satisfies CubeReply)
  }
})
