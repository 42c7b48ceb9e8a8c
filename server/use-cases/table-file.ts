import type { z } from 'zod'
import { columnsFor } from '../../core/spend/table'
import { dataDaysOf, reachInto } from '../../core/spend/sentence-period'
import { dayGroups } from '../../core/spend/day-groups'
import type { tableExport } from '../../shared/contracts/spend-export'
import { withCompanions } from '../../shared/words/dimensions'
import type { Work } from './work'
import { tableFormats } from '../../shared/table-formats'

/** Makes the file of a table exactly as it is shown: all it takes is asked of one state of the charges, and laid out in a thread. */
export async function tableFile(
  { seen, exporter }: Pick<Work, 'seen' | 'exporter'>,
  asked: z.infer<typeof tableExport>,
): Promise<{ bytes: Uint8Array; mime: string }> {
  const { question, across, before } = asked
  const splitBy = withCompanions(question.splitBy)
  const plain = { ...question, splitBy, limit: undefined, grain: null }
  const { result: facts } = await seen.ask('facts', undefined)
  const days = dataDaysOf(facts)
  const columns = columnsFor(question.measure, asked.columns, before && days ? reachInto(before, days) : 'whole')
  const groups = dayGroups(
    question,
    facts.sources.map(({ source }) => source),
  )
  const ofDays = groups.length > 1 && columns.includes('perDay') ? groups : []
  const { result, revision } = await seen.ask('answers', [
    {
      ...plain,
      splitBy: across && across !== 'start' ? [...splitBy, across] : splitBy,
      grain: across === 'start' ? (question.grain ?? 'month') : null,
    },
    ...ofDays.map(({ scope }) => ({ ...plain, ...scope })),
    ...(before ? [{ ...plain, ...before }] : []),
  ])
  const bytes = await exporter.writeSpendTable({
    asked,
    columns,
    facts,
    revision,
    now: result[0]!,
    old: before ? result.at(-1)! : null,
    byDays: ofDays.length ? ofDays.map(({ days }, i) => ({ days, answer: result[i + 1]! })) : null,
    days: groups[0]!.days,
  })
  return { bytes, mime: asked.part === 'notes' ? 'text/plain; charset=utf-8' : tableFormats[asked.format].mime }
}
