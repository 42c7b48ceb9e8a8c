import type { z } from 'zod'
import { spendTable, type TableHead } from '../../core/spend/table'
import { daysBetween } from '../../core/time/day'
import type { tableExport } from '../../shared/contracts/spend-export'
import type { Services } from '../services'
import { tableMimes } from '../exports/tables/table-writer'

/** Makes the file of a table exactly as it is shown. */
export async function tableFile({ cube, exporter }: Pick<Services, 'cube' | 'exporter'>, asked: z.infer<typeof tableExport>): Promise<{ bytes: Uint8Array, mime: string }> {
  const { question, across, before, companions, currency, columns } = asked
  const splitBy = [...new Set(question.splitBy.flatMap(dimension => companions[dimension] ? [dimension, companions[dimension]] : [dimension]))]
  const plain = { ...question, splitBy, limit: undefined, grain: null }
  const [{ result: now, revision }, old] = await Promise.all([
    cube.ask('answer', { ...plain, splitBy: across && across !== 'start' ? [...splitBy, across] : splitBy, grain: across === 'start' ? question.grain ?? 'month' : null }),
    before && cube.ask('answer', { ...plain, ...before }),
  ])
  const days = daysBetween(question.start, question.end)
  const table = spendTable(now, old && old.result, { splitBy: question.splitBy, companions, across, currency, columns, days })
  const name = (head: TableHead) => headName(head, asked)
  const bytes = await exporter.writeTable(asked.format, {
    title: asked.title, facts: [`${question.start} to ${question.end} (exclusive)`, currency, `state ${revision} of the charges`],
    heads: table.heads.map(head => ({ name: name(head), kind: head.kind })), rows: table.rows.map(row => row.cells), total: table.total.cells,
  })
  return { bytes, mime: tableMimes[asked.format] }
}

function headName(head: TableHead, { labels, currency, question }: z.infer<typeof tableExport>): string {
  if (head.value !== undefined) return head.value ?? 'none'
  if (head.column === 'amount') return `${labels[question.measure] ?? question.measure}, ${currency}`
  return labels[head.id] ?? head.id
}
