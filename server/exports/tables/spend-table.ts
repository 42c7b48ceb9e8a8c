import type { z } from 'zod'
import { adds, type Scope } from '../../../core/spend/question'
import { dataDaysOf, laggards, reachInto } from '../../../core/spend/sentence-period'
import { spendTable, type TableColumn, type TableHead } from '../../../core/spend/table'
import { addDays } from '../../../core/time/day'
import { codedAnswer } from '../../../core/spend/answer-columns'
import type { PackedAnswer } from '../../../core/spend/packed'
import type { PackedConverted } from '../../../core/spend/convert'
import type { Period } from '../../../core/time/period'
import type { tableExport } from '../../../shared/contracts/spend-export'
import { companionOf } from '../../../shared/words/dimensions'
import { fileHead } from '../../../shared/words/table-heads'
import { withinSaid } from '../../../shared/words/within'
import type { CubeFacts } from '../../charges/cube/cube-facts'
import type { ColumnTotal, FileFact, FileTable } from './table-writer'

type Packed = PackedAnswer | PackedConverted

/** A table of spend before it is laid out: what was asked, and the answers that it takes, their rows packed. */
export type SpendTableTask = {
  asked: z.infer<typeof tableExport>
  columns: TableColumn[]
  facts: CubeFacts
  /** The state of the charges. */
  revision: number
  now: Packed
  /** Of the period that it is compared with. */
  old: Packed | null
  /** By parts of the sources that reach equally far; null where all do. */
  byDays: { days: number; answer: Packed }[] | null
  /** The days of the period that have charges. */
  days: number
}

/** Lays out a table exactly as it is shown. */
export function spendFileTable({ asked, columns, facts, revision, now: packed, old, byDays, days }: SpendTableTask): FileTable {
  const { question, across, before, currency } = asked
  const now = codedAnswer(packed)
  const table = spendTable(now, old && codedAnswer(old), {
    measure: question.measure,
    splitBy: question.splitBy,
    companions: companionOf,
    across,
    currency,
    columns,
    days,
    ...(byDays && { byDays: byDays.map(({ days, answer }) => ({ days, answer: codedAnswer(answer) })) }),
  })
  const place = (column: TableHead['column']) => table.heads.findIndex(head => head.column === column)
  // the totals of what adds are formulas over the rows; a change is one over the totals it compares, where both are shown
  const totalOf = ({ kind, column }: TableHead): ColumnTotal | undefined => {
    if (!adds(question.measure) || kind === 'text') return undefined
    if (column !== 'changeShare') return 'sum'
    return place('before') < 0 ? undefined : { change: { from: place('before'), to: place('amount') } }
  }
  return {
    title: asked.title,
    facts: [
      { name: 'Period', text: periodSaid(question) },
      ...(before ? [{ name: 'Compared with', text: periodSaid(before) }] : []),
      { name: 'Amounts in', text: currency },
      ...(facts.within ? [{ name: 'Of the company', text: withinSaid(facts.within) }] : []),
      ...missingFacts(question, before, facts),
      ...('unconverted' in packed ? packed.unconverted : []).map(({ currency: own, from, to, amount }) => ({
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
