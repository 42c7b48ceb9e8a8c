import { centresWithin } from '../../../core/allocation/tree'
import { journalOf } from '../../../core/allocation/statements/journal'
import { monthStatements, type MonthStatements } from '../../../core/allocation/statements/month-statements'
import { statementHeads, statementRows } from '../../../core/allocation/statements/statement-rows'
import { minorDecimals } from '../../../core/money/currency'
import { measureNames } from '../../../shared/words/table-heads'
import { JsonBytes } from '../../json-bytes'
import { tableWriters } from '../tables'
import type { FileTable } from '../tables/table-writer'
import { statementsPdf } from './statements-pdf'
import type { StatementsTask } from './statements-task'

/** Writes the statements of a month in one format. */
export async function statementsFile({
  format,
  month,
  measure,
  settled,
  centres,
  centre,
  people,
  beside,
}: StatementsTask): Promise<Uint8Array> {
  const read = settled instanceof Uint8Array ? new JsonBytes<Exclude<typeof settled, Uint8Array>>(settled).read() : settled
  const all = monthStatements({ month, measure }, read, centres, beside)
  const within = centre === null ? null : centresWithin(centres, { centres: [centre] })
  const shown: MonthStatements = within
    ? { ...all, statements: all.statements.filter(one => within.has(one.centre.id)), unallocated: [] }
    : all
  const owner = (id: string) => people[id] ?? id
  if (format === 'pdf') return statementsPdf(shown, owner)
  const table = format === 'journal' ? journalTable(shown) : linesTable(shown, owner)
  return tableWriters[format === 'journal' ? 'csv' : format].write(table)
}

const factsOf = ({ month, measure, closed }: MonthStatements): FileTable['facts'] => [
  { name: 'Month', text: month },
  { name: 'Cost', text: measureNames[measure] },
  { name: 'State', text: closed ? `closed by ${closed.who} on ${closed.closedAt}, rules of version ${closed.version}` : 'draft' },
  ...(closed?.purpose ? [{ name: 'For', text: closed.purpose }] : []),
]

const linesTable = (month: MonthStatements, owner: (id: string) => string): FileTable => ({
  title: `Statements of ${month.month}`,
  facts: factsOf(month),
  heads: statementHeads.map(name => ({ name, kind: name === 'Amount' || name === 'Of pool' || name === 'Uplift' ? 'amount' : 'text' })),
  rows: statementRows(month, owner),
  total: null,
})

const journalTable = (month: MonthStatements): FileTable => ({
  title: `Journal of ${month.month}`,
  facts: factsOf(month),
  heads: ['Month', 'Account', 'Name', 'Currency', 'Debit', 'Credit'].map(name => ({
    name,
    kind: name === 'Debit' || name === 'Credit' ? 'amount' : 'text',
  })),
  rows: journalOf(month, minorDecimals).map(({ account, name, currency, debit, credit }) => {
    return [month.month, account, name, currency, debit, credit]
  }),
  total: null,
})
