// The thread that holds all charges in memory and answers questions about them.
import { parentPort } from 'node:worker_threads'
import { centreCoding, noPlans, type Plans } from '../../core/allocation/centre-coding'
import { allocationPlanSchema } from '../../core/allocation/plan'
import { whose, type Owner, type ResourceFacts } from '../../core/allocation/whose'
import type { Rate } from '../../core/money/rates'
import { scaledText } from '../../core/money/scaled'
import { plainGroups, type Group } from '../../core/spend/answer'
import type { Converted, PackedConverted } from '../../core/spend/convert'
import { foundDimensions, inheritedTagKeys } from '../../core/spend/coding'
import { covered } from '../../core/spend/covered'
import { Cube, chunkKey, type Chunk } from '../../core/spend/cube'
import { centreDimension, columnDimensions } from '../../core/spend/dimension'
import { groupCharges } from '../../core/spend/group'
import type { PackedAnswer } from '../../core/spend/packed'
import type { Answer, Grouping, Scope } from '../../core/spend/question'
import { findPlaces, type FoundPlace } from '../../core/spend/find'
import { dataDays, sourceDays, type SourceDays } from '../../core/spend/freshness'
import { earlierCard, type RateCard } from '../../core/ratecard/rate-card'
import { skuMeanings, type SkuMeaning } from '../../core/ratecard/sku-meanings'
import { chunksReached } from '../../core/spend/reached'
import { rowsOf } from '../../core/spend/rows'
import { hourOf } from '../../core/spend/segment'
import { segmentSums } from '../../core/spend/segment-sums'
import type { DictionaryName } from '../../core/focus/star'
import type { ImportPeriod } from '../../shared/contracts/imports'
import type { Day } from '../../core/time/day'
import { lookup, referenceBody } from '../../shared/contracts/spend-settings'
import type { Entry } from '../charges/charge-store'
import { decodeSegment } from '../charges/segment-codec'
import type { Beside } from '../stores/beside'
import { answerAsked, answersAsked, meaningsOf, replies, type Asked, type CubeReplies, type Known } from './cube-replies'
import { sliced, type CubeSlices } from './cube-slices'
import { GivenUp, inSlices } from './in-slices'

export type ChunkName = { source: string; billingPeriodStart: string }
/** Entries as the JSON text of a list. */
export type NewEntries = { dictionary: DictionaryName; text: string }
/** The charges of a billing period as they are kept, of which load, and how many there are to be. */
export type StagedChunk = Omit<Chunk, 'segments' | 'loadId'> & { loadId: number; rows: number; segments: Uint8Array[] }
/** The rows of a load's charges for a billing period that a scope leaves, by segment; null where it reaches none. */
export type LoadRows = { loadId: number; billingPeriodStart: string; billingPeriodEnd: string; segments: (Uint32Array | null)[] }
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
  /** How many charges a scope leaves. */
  count: (scope: Scope) => number
  /** Which charges of which loads a scope leaves: by segment their rows, in order. */
  rows: (scope: Scope) => LoadRows[]
  /** The days that charges cover, and which sources have delivered them. */
  covered: (scope: Scope) => ReturnType<typeof covered>
  /** Whose resources are on a day, by the first tree of cost centres; by resource id, nothing where there is no plan. */
  whose: (asked: { resources: ResourceFacts[]; day: Day }) => Record<string, Owner>
  /** Places whose name or id holds a text. */
  find: (text: string) => FoundPlace[]
  facts: () => CubeFacts
  /** Sums of billing periods as they are in memory, by currency. */
  sums: (periods: ChunkName[]) => ImportPeriod[]
}
export type CubeRequest =
  | { [K in keyof CubeCalls]: { id: number; call: K; argument: Parameters<CubeCalls[K]>[0] } }[keyof CubeCalls]
  | { [K in keyof CubeReplies]: { id: number; reply: K; argument: Parameters<CubeReplies[K]>[1] } }[keyof CubeReplies]
  | { [K in keyof CubeSlices]: { id: number; slices: K; argument: Parameters<CubeSlices[K]>[1] } }[keyof CubeSlices]
  | { giveUp: number }
export type CubeReply = { id: number; revision: number; result: unknown } | { id: number; error: string } | { id: number; givenUp: true }

const cube = new Cube()
let revision = 0
let rates: Rate[] = []
let meanings = new Map<string, SkuMeaning>()
let reportCurrency: string | null = null
let known: CubeFacts | null = null
let plans: Plans = noPlans
/** Counts what changes the answers to questions. */
let state = 0
cube.setCentres((own, tree, shows) => centreCoding(plans, tree, dimension => own.coding(dimension), shows))

const staged = new Map<string, Chunk | ChunkName>()
const damaged = new Map<string, ChunkName>()
const nameOf = ({ source, billingPeriodStart }: ChunkName): ChunkName => ({ source, billingPeriodStart })
const keyOf = (name: ChunkName) => chunkKey(name.source, name.billingPeriodStart)

function facts(): CubeFacts {
  const used = columnDimensions.filter(({ name }) => cube.coding(name).values.length > 1)
  const trees = plans.newest ? [null, ...(plans.newest.trees ?? []).map(({ id }) => id)] : []
  const found = [...foundDimensions(cube), ...trees.map(centreDimension)]
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

const everything = (): Known => ({ cube, rates, meanings, reportCurrency })

function takeBeside(beside: Beside): void {
  const { skus, reportCurrency: own, ...said } = referenceBody.parse(beside.reference === null ? {} : JSON.parse(beside.reference))
  reportCurrency = own
  plans = { newest: beside.plan === null ? null : allocationPlanSchema.parse(JSON.parse(beside.plan)), closed: {} }
  const lookups = Object.fromEntries(beside.lookups.map(({ name, text }) => [name, lookup.parse(JSON.parse(text))]))
  meanings = skuMeanings(
    beside.cards.map(text => earlierCard(JSON.parse(text)) as RateCard),
    skus,
  )
  cube.setReference({ ...said, charged: Object.fromEntries([...meanings].map(([sku, { charged }]) => [sku, charged])), lookups })
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
    state++
    return null
  },
  refer(beside) {
    takeBeside(beside)
    known = null
    state++
    return null
  },
  meanings: skus => meaningsOf(meanings, skus),
  answer: question => answerAsked(everything(), question),
  answers: questions => answersAsked(everything(), questions),
  group: question => plainGroups(cube, question),
  count: scope => groupCharges(cube, { ...scope, splitBy: [], grain: null, measures: [] }).counts.reduce((a, b) => a + b, 0),
  rows(scope) {
    const rowsWithin = rowsOf(cube, scope)
    return chunksReached(cube, scope)
      .sort((a, b) => (keyOf(a.chunk) < keyOf(b.chunk) ? -1 : 1))
      .map(({ chunk: { loadId, billingPeriodStart, billingPeriodEnd }, segments }) => ({
        loadId: loadId!,
        billingPeriodStart,
        billingPeriodEnd,
        segments: segments.map(reached => reached && rowsWithin(reached)),
      }))
  },
  covered: scope => covered(cube, scope),
  whose: ({ resources, day }) => (plans.newest ? Object.fromEntries(whose(cube, plans.newest, resources, day)) : {}),
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
/** What is answered in slices and is not wanted any more. */
const givenUp = new Set<number>()

function send(reply: CubeReply, bytes?: Uint8Array): void {
  parentPort!.postMessage(reply, bytes ? [bytes.buffer as ArrayBuffer] : [])
}
function sendWritten(id: number, made: object): void {
  const result = utf8.encode(JSON.stringify({ ...made, revision }))
  send({ id, revision, result }, result)
}
function sendFailed(id: number, error: unknown): void {
  send(error instanceof GivenUp ? { id, givenUp: true } : { id, error: (error as Error).stack ?? (error as Error).message })
}

parentPort!.on('message', (request: CubeRequest) => {
  if ('giveUp' in request) {
    givenUp.add(request.giveUp)
    return
  }
  const { id, argument, ...asked } = request
  try {
    if ('slices' in asked) {
      const make = sliced[asked.slices] as (known: Known, argument: unknown) => Generator<void, object>
      inSlices(
        () => make(everything(), argument),
        () => state,
        () => givenUp.has(id),
      )
        .then(made => sendWritten(id, made))
        .catch((error: unknown) => sendFailed(id, error))
        .finally(() => givenUp.delete(id))
    } else if ('reply' in asked)
      sendWritten(id, (replies[asked.reply] as (known: Known, argument: unknown) => object)(everything(), argument))
    else send({ id, revision, result: (calls[asked.call] as (argument: unknown) => unknown)(argument) })
  } catch (error) {
    sendFailed(id, error)
  }
})
