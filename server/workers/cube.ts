// The thread that holds all charges in memory and answers questions about them.
import { parentPort } from 'node:worker_threads'
import type { Rate } from '../../core/money/rates'
import { scaledText } from '../../core/money/scaled'
import { plainGroups, type Group } from '../../core/spend/answer'
import type { Converted, PackedConverted } from '../../core/spend/convert'
import { foundDimensions, inheritedTagKeys } from '../../core/spend/coding'
import { covered } from '../../core/spend/covered'
import { Cube, chunkKey, type Chunk } from '../../core/spend/cube'
import { columnDimensions } from '../../core/spend/dimension'
import { groupCharges, narrowedIds, type NarrowedIds } from '../../core/spend/group'
import type { PackedAnswer } from '../../core/spend/packed'
import type { Answer, Grouping, Scope } from '../../core/spend/question'
import { findPlaces, type FoundPlace } from '../../core/spend/find'
import { dataDays, sourceDays, type SourceDays } from '../../core/spend/freshness'
import { earlierCard, type RateCard } from '../../core/ratecard/rate-card'
import { skuMeanings, type SkuMeaning } from '../../core/ratecard/sku-meanings'
import { hourOf } from '../../core/spend/segment'
import { segmentSums } from '../../core/spend/segment-sums'
import type { DictionaryName } from '../../core/focus/star'
import type { ImportPeriod } from '../../shared/contracts/imports'
import { referenceBody } from '../../shared/contracts/spend-settings'
import type { Entry } from '../charges/charge-store'
import { decodeSegment } from '../charges/segment-codec'
import type { Beside } from '../stores/beside'
import { answerAsked, answersAsked, meaningsOf, replies, type Asked, type CubeReplies } from './cube-replies'

export type ChunkName = { source: string; billingPeriodStart: string }
/** Entries as the JSON text of a list. */
export type NewEntries = { dictionary: DictionaryName; text: string }
/** The charges of a billing period as they are kept, and how many there are to be. */
export type StagedChunk = Omit<Chunk, 'segments'> & { rows: number; segments: Uint8Array[] }
/** What makes everything staged count, at once; where nothing is said beside the charges, what was known stays. */
export type CubeUpdate = { revision: number; gone: ChunkName[] } & { beside?: Beside }
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
  /** What SKU codes mean; those that nobody knows are left out. */
  meanings: (skus: string[]) => Record<string, SkuMeaning>
  answer: (question: Asked) => Answer | Converted
  /** Several questions of one state of the data, their rows packed. */
  answers: (questions: Asked[]) => (PackedAnswer | PackedConverted)[]
  group: (question: Grouping) => Group[]
  /** The conditions of a scope as dictionary ids, and how many charges they leave. */
  narrowed: (scope: Scope) => NarrowedIds & { charges: number }
  /** The days that charges cover, and which sources have delivered them. */
  covered: (scope: Scope) => ReturnType<typeof covered>
  /** Places whose name or id holds a text. */
  find: (text: string) => FoundPlace[]
  facts: () => CubeFacts
  /** Sums of billing periods as they are in memory, by currency. */
  sums: (periods: ChunkName[]) => ImportPeriod[]
}
export type CubeRequest =
  | { [K in keyof CubeCalls]: { id: number; call: K; argument: Parameters<CubeCalls[K]>[0] } }[keyof CubeCalls]
  | { [K in keyof CubeReplies]: { id: number; reply: K; argument: Parameters<CubeReplies[K]>[1] } }[keyof CubeReplies]
export type CubeReply = { id: number; revision: number; result: unknown } | { id: number; error: string }

const cube = new Cube()
let revision = 0
let rates: Rate[] = []
let meanings = new Map<string, SkuMeaning>()
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

const everything = () => ({ cube, rates, meanings })

function takeBeside(beside: Beside): void {
  const { skus, ...said } = referenceBody.parse(beside.reference === null ? {} : JSON.parse(beside.reference))
  meanings = skuMeanings(
    beside.cards.map(text => earlierCard(JSON.parse(text)) as RateCard),
    skus,
  )
  cube.setReference({ ...said, charged: Object.fromEntries([...meanings].map(([sku, { charged }]) => [sku, charged])) })
  rates = JSON.parse(beside.rates) as Rate[]
}

const calls: CubeCalls = {
  enter({ dictionary, text }) {
    for (const [id, ...values] of JSON.parse(text) as Entry[]) cube.addEntry(dictionary, id, values)
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
    if (update.beside) takeBeside(update.beside)
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
  refer(beside) {
    takeBeside(beside)
    known = null
    return null
  },
  meanings: skus => meaningsOf(meanings, skus),
  answer: question => answerAsked(everything(), question),
  answers: questions => answersAsked(everything(), questions),
  group: question => plainGroups(cube, question),
  narrowed(scope) {
    const groups = groupCharges(cube, { ...scope, splitBy: [], grain: null, measures: [] })
    return { ...narrowedIds(cube, scope), charges: groups.counts.reduce((a, b) => a + b, 0) }
  },
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

const utf8 = new TextEncoder()

parentPort!.on('message', ({ id, argument, ...asked }: CubeRequest) => {
  try {
    if ('reply' in asked) {
      const made = (replies[asked.reply] as (known: object, argument: unknown) => object)(everything(), argument)
      const result = utf8.encode(JSON.stringify({ ...made, revision }))
      parentPort!.postMessage({ id, revision, result } satisfies CubeReply, [result.buffer as ArrayBuffer])
      return
    }
    const result = (calls[asked.call] as (argument: unknown) => unknown)(argument)
    parentPort!.postMessage({ id, revision, result } satisfies CubeReply)
  } catch (error) {
    parentPort!.postMessage({ id, error: (error as Error).message } satisfies CubeReply)
  }
})
