import type { z } from 'zod'
import { adds } from '../../core/spend/question'
import type { Scope } from '../../core/spend/question'
import { dataDaysOf, laggards, reachInto } from '../../core/spend/view'
import { columnsFor, spendTable, type TableHead } from '../../core/spend/table'
import { addDays } from '../../core/time/day'
import { dayGroups } from '../../core/spend/day-groups'
import type { Period } from '../../core/time/period'
import type { tableExport } from '../../shared/contracts/spend-export'
import { companionOf, withCompanions } from '../../shared/words/dimensions'
import { fileHead } from '../../shared/words/table-heads'
import type { Services } from '../services'
import type { CubeFacts } from '../workers/cube'
import { factLines, tableMimes, type ColumnTotal, type FileFact, type FileTable } from '../exports/tables/table-writer'

/** Makes the file of a table exactly as it is shown. */
export async function tableFile(
  { cube, exporter }: Pick<Services, 'cube' | 'exporter'>,
  asked: z.infer<typeof tableExport>,
): Promise<{ bytes: Uint8Array; mime: string }> {
  const { question, across, before, currency } = asked
  const splitBy = withCompanions(question.splitBy)
  const plain = { ...question, splitBy, limit: undefined, grain: null }
  const { result: facts } = await cube.ask('facts', undefined)
  const days = dataDaysOf(facts)
  const columns = columnsFor(question.measure, asked.columns, before && days ? reachInto(before, days) : 'whole')
  const groups = dayGroups(
    question,
    facts.sources.map(({ source }) => source),
  )
  const [{ result: now, revision }, old] = await Promise.all([
    cube.ask('answer', {
      ...plain,
      splitBy: across && across !== 'start' ? [...splitBy, across] : splitBy,
      grain: across === 'start' ? (question.grain ?? 'month') : null,
    }),
    before && cube.ask('answer', { ...plain, ...before }),
  ])
  const byDays =
    groups.length > 1 && columns.includes('perDay')
      ? await Promise.all(
          groups.map(async ({ days, scope }) => ({ days, answer: (await cube.ask('answer', { ...plain, ...scope })).result })),
        )
      : undefined
  const table = spendTable(now, old && old.result, {
    measure: question.measure,
    splitBy: question.splitBy,
    companions: companionOf,
    across,
    currency,
    columns,
    days: groups[0]!.days,
    ...(byDays && { byDays }),
  })
  const place = (column: TableHead['column']) => table.heads.findIndex(head => head.column === column)
  // the totals of what adds are formulas over the rows; a change is one over the totals it compares, where both are shown
  const totalOf = ({ kind, column }: TableHead): ColumnTotal | undefined => {
    if (!adds(question.measure) || kind === 'text') return undefined
    if (column !== 'changeShare') return 'sum'
    return place('before') < 0 ? undefined : { change: { from: place('before'), to: place('amount') } }
  }
  const file: FileTable = {
    title: asked.title,
    facts: [
      { name: 'Period', text: periodSaid(question) },
      ...(before ? [{ name: 'Compared with', text: periodSaid(before) }] : []),
      { name: 'Amounts in', text: currency },
      ...missingFacts(question, before, facts),
      ...('unconverted' in now ? now.unconverted : []).map(({ currency: own, from, to, amount }) => ({
        name: 'No rate',
        text: `${amount} ${own} from ${from} to ${addDays(to, -1)} stand apart: no rate to ${question.reportCurrency}`,
      })),
      { name: 'State of the charges', text: String(revision) },
    ],
    heads: table.heads.map(head => {
      const total = totalOf(head)
      return { name: fileHead(head, question.measure, currency), kind: head.kind, ...(total && { total }) }
    }),
    rows: table.rows.map(row => row.cells),
    total: table.total.cells,
  }
  if (asked.part === 'notes') return { bytes: new TextEncoder().encode(factLines(file)), mime: 'text/plain; charset=utf-8' }
  const bytes = await exporter.writeTable(asked.format, file)
  return { bytes, mime: tableMimes[asked.format] }
}

const periodSaid = ({ start, end }: Period) => `${start} to ${addDays(end, -1)}`

/** What the figures lack: days of sources that lag, a part of a day, days that are not loaded, periods that are damaged. */
function missingFacts(question: Period & Pick<Scope, 'ends'>, before: Period | null, facts: CubeFacts): FileFact[] {
  const days = dataDaysOf(facts)
  if (!days) return []
  const lacks = (name: string, text: string): FileFact => ({ name, text })
  const late = laggards(question, days)
  const reach = before ? reachInto(before, days) : 'whole'
  return [
    ...late.map(({ source, lastDay }) => lacks('Lacks', `days of ${source} after ${lastDay}`)),
    ...facts.sources.flatMap(({ source, partialDay, deliveredAt }) =>
      partialDay && partialDay >= question.start && partialDay < question.end
        ? [lacks('In part', `${partialDay} of ${source}, delivered ${deliveredAt}`)]
        : [],
    ),
    ...(reach === 'whole'
      ? []
      : [
          lacks(
            'Compared with',
            reach === 'none' ? 'nothing of that period is loaded' : `that period is loaded in part: ${days.firstDay} to ${days.lastDay}`,
          ),
        ]),
    ...facts.damaged.map(({ source, billingPeriodStart }) =>
      lacks('Damaged', `${source}, ${billingPeriodStart.slice(0, 7)}: in no figure`),
    ),
  ]
}
