import type { z } from 'zod'
import { spendTable } from '../../core/spend/table'
import { daysBetween } from '../../core/time/day'
import type { tableExport } from '../../shared/contracts/spend-export'
import { companionOf, withCompanions } from '../../shared/words/dimensions'
import { fileHead } from '../../shared/words/table-heads'
import type { Services } from '../services'
import { tableMimes } from '../exports/tables/table-writer'

/** Makes the file of a table exactly as it is shown. */
export async function tableFile(
  { cube, exporter }: Pick<Services, 'cube' | 'exporter'>,
  asked: z.infer<typeof tableExport>,
): Promise<{ bytes: Uint8Array; mime: string }> {
  const { question, across, before, currency, columns } = asked
  const splitBy = withCompanions(question.splitBy)
  const plain = { ...question, splitBy, limit: undefined, grain: null }
  const [{ result: now, revision }, old] = await Promise.all([
    cube.ask('answer', {
      ...plain,
      splitBy: across && across !== 'start' ? [...splitBy, across] : splitBy,
      grain: across === 'start' ? (question.grain ?? 'month') : null,
    }),
    before && cube.ask('answer', { ...plain, ...before }),
  ])
  const days = daysBetween(question.start, question.end)
  const table = spendTable(now, old && old.result, { splitBy: question.splitBy, companions: companionOf, across, currency, columns, days })
  const bytes = await exporter.writeTable(asked.format, {
    title: asked.title,
    facts: [`${question.start} to ${question.end} (exclusive)`, currency, `state ${revision} of the charges`],
    heads: table.heads.map(head => ({ name: fileHead(head, question.measure, currency), kind: head.kind })),
    rows: table.rows.map(row => row.cells),
    total: table.total.cells,
  })
  return { bytes, mime: tableMimes[asked.format] }
}
