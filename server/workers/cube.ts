// The thread that holds all charges in memory and answers questions about them.
import { parentPort } from 'node:worker_threads'
import { answer, groupCharges, type Group } from '../../core/spend/answer'
import { Cube, type MeasureName } from '../../core/spend/cube'
import type { Answer, Question } from '../../core/spend/question'
import { dimensionColumns, type DictionaryName } from '../../core/focus/star'
import { dayFromNumber } from '../../core/time/day'
import { readChargeCopy } from '../engine/copy-binary'

export type ChunkUpdate = { source: string, billingPeriodStart: string, rows: number, copy: Uint8Array }
export type CubeUpdate = { revision: number, entries: { dictionary: DictionaryName, id: number, values: (string | null)[] }[], chunks: ChunkUpdate[] }
export type Grouping = Omit<Question, 'measure' | 'limit'> & { measures: MeasureName[] }
export type CubeFacts = { columns: string[], tags: string[], firstDay: string | null, lastDay: string | null, currencies: string[], charges: number, lastDayBySource: Record<string, string> }

export type CubeCalls = {
  update: (update: CubeUpdate) => null
  answer: (question: Question) => Answer
  group: (question: Grouping) => Group[]
  facts: () => CubeFacts
}
export type CubeRequest = { [K in keyof CubeCalls]: { id: number, call: K, argument: Parameters<CubeCalls[K]>[0] } }[keyof CubeCalls]
export type CubeReply = { id: number, revision: number, result: unknown } | { id: number, error: string }

const cube = new Cube()
let revision = 0

const calls: CubeCalls = {
  update(update) {
    for (const { dictionary, id, values } of update.entries) cube.addEntry(dictionary, id, values)
    for (const { source, billingPeriodStart, rows, copy } of update.chunks) {
      cube.setChunk({ source, billingPeriodStart, ...readChargeCopy(copy, rows, currency => cube.currencyCode(currency)) })
    }
    revision = update.revision
    return null
  },
  answer: question => answer(cube, question),
  group: question => groupCharges(cube, question),
  facts() {
    let first = Infinity
    let last = -Infinity
    const lastDayBySource: Record<string, string> = {}
    for (const chunk of cube.chunks.values()) {
      let chunkLast = -Infinity
      for (let row = 0; row < chunk.rows; row++) {
        const hour = chunk.startHour[row]!
        if (hour < first) first = hour
        if (hour > chunkLast) chunkLast = hour
      }
      if (chunkLast > last) last = chunkLast
      if (chunkLast > -Infinity) {
        const day = dayFromNumber(Math.floor(chunkLast / 24))
        if (!lastDayBySource[chunk.source] || day > lastDayBySource[chunk.source]!) lastDayBySource[chunk.source] = day
      }
    }
    const used = dimensionColumns.filter(column => cube.coding(column).values.some(value => value !== null))
    return {
      columns: used, tags: cube.tagDimensions(), currencies: [...cube.currencies].sort(), charges: cube.rows, lastDayBySource,
      firstDay: first === Infinity ? null : dayFromNumber(Math.floor(first / 24)),
      lastDay: last === -Infinity ? null : dayFromNumber(Math.floor(last / 24)),
    }
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
