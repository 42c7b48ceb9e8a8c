import { treeOf } from '../../core/allocation/plan'
import { treeWithin } from '../../core/allocation/tree'
import type { StatementFormat, StatementsAsked } from '../../shared/contracts/allocation'
import { tableFormats } from '../../shared/table-formats'
import { measureNames } from '../../shared/words/table-heads'
import { JsonBytes } from '../json-bytes'
import { conflict, notFound } from '../problems/problem'
import { findClosed } from '../stores/closings'
import { namesOf } from '../stores/people'
import { settledMonth } from './settled-month'
import { statementsBeside } from './unit-costs'
import type { Work } from './work'

const files: Record<StatementFormat, { mime: string; ending: string }> = {
  pdf: { mime: 'application/pdf', ending: '.pdf' },
  csv: { mime: tableFormats.csv.mime, ending: '.csv' },
  xlsx: { mime: tableFormats.xlsx.mime, ending: '.xlsx' },
  journal: { mime: tableFormats.csv.mime, ending: '-journal.csv' },
}

/**
 * The statements of a month as a file, as far as whoever asks may see them.
 * @throws Problem where the month is closed by another cost: its statements are those that were closed.
 */
export async function statementsFile(
  work: Work,
  format: StatementFormat,
  { centre = undefined, ...question }: StatementsAsked,
): Promise<{ bytes: Uint8Array; mime: string; fileName: string }> {
  const { month, measure } = question
  const { database, asker, exporter } = work
  const closed = await findClosed(database.db, month)
  if (closed && closed.measure !== measure)
    throw conflict(
      `${month} was closed by ${measureNames[closed.measure]}`,
      `Its statements are those, and none are made by ${measureNames[measure]}: ask for them by ${measureNames[closed.measure]}.`,
    )
  if (closed?.purpose === 'showback' && format === 'journal')
    throw conflict(`${month} was closed for showback`, 'Nothing of it is posted: its statements are for information, as PDF, CSV or XLSX.')
  const { plan, reply } = await settledMonth(work, question)
  const tree = treeOf(plan, question.tree ?? null)
  if (!tree) throw notFound('tree', `No tree of cost centres is called «${question.tree}».`)
  const centres = asker.bound ? treeWithin(tree.centres, asker.bound) : tree.centres
  if (centre !== undefined && !centres.some(({ id }) => id === centre)) throw notFound('cost centre', `There is no «${centre}».`)
  const bytes = await exporter.writeStatements({
    ...{ format, month, measure, centres, centre: centre ?? null },
    settled: reply instanceof JsonBytes ? Buffer.from(reply.bytes) : reply,
    people: Object.fromEntries(await namesOf(database.db)),
    // only the document has a place for it
    beside: format === 'pdf' ? await statementsBeside(work, question) : { to: null, before: null, unitCosts: [] },
  })
  const { mime, ending } = files[format]
  return { bytes, mime, fileName: ['statements', month, centre].filter(Boolean).join('-') + ending }
}
