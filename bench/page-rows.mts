// What a page does with an answer of many rows, in milliseconds: the list, the table and its lines, as the browser does it.
import { codedAnswer } from '../core/spend/answer-columns'
import { packAnswer } from '../core/spend/packed'
import { rowsOf } from '../core/spend/page/rows'
import type { Answer } from '../core/spend/question'
import { spendTable } from '../core/spend/table'
import { tableLines } from '../core/spend/table-lines'

const splitBy = ['ServiceName', 'ResourceId']
const answerOf = (rows: number): Answer => ({
  ...{ totals: [], rest: null },
  rows: Array.from({ length: rows }, (_, i) => ({
    values: { ServiceName: `service ${i % 20}`, ResourceId: `resource-${i}`, ResourceName: `name ${i}` },
    ...{ start: null, currency: 'EUR', amount: `${i % 1000}.${100000 + i}` },
  })),
})
for (const count of [500, 5000, 50_000]) {
  const packed = packAnswer(answerOf(count), ['ServiceName', 'ResourceId', 'ResourceName'])
  const best = [Infinity, Infinity, Infinity, Infinity]
  for (let round = 0; round < 7; round++) {
    const took: number[] = []
    const timed = <T,>(work: () => T): T => {
      const began = performance.now()
      const made = work()
      took.push(performance.now() - began)
      return made
    }
    const [now, before] = timed(() => [codedAnswer(packed), codedAnswer(packed)] as const)
    timed(() => rowsOf(now, before, splitBy, 'EUR', (_, value, name) => name ?? value ?? ''))
    const columns = ['share', 'perDay', 'before', 'difference', 'changeShare'] as const
    const spec = { measure: 'effectiveCost' as const, splitBy, companions: {}, across: null, currency: 'EUR', columns, days: 30 }
    const table = timed(() => spendTable(now, before, spec))
    timed(() => {
      const order = { column: 'amount', down: true }
      const lines = tableLines(table, { splitBy, order, closed: new Set(), adds: true, nameOf: (row, i) => row.values[i] ?? '' })
      return lines.slice(0, 40).map(({ row }) => row.cells)
    })
    took.forEach((ms, i) => (best[i] = Math.min(best[i]!, ms)))
  }
  console.log(
    `${count} rows: read ${best[0]!.toFixed(1)}, list ${best[1]!.toFixed(1)}, table ${best[2]!.toFixed(1)}, lines in sight ${best[3]!.toFixed(1)} ms`,
  )
}
