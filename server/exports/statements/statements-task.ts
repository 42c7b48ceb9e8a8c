import type { BesideStatements, MonthStatements } from '../../../core/allocation/statements/month-statements'
import type { CostCentre } from '../../../core/allocation/plan'
import type { StatementFormat, Settlement } from '../../../shared/contracts/allocation'

/** The statements of a month as a file: all it needs is with it. */
export type StatementsTask = {
  format: StatementFormat
  month: string
  measure: MonthStatements['measure']
  /** The settled month, or its JSON in UTF-8. */
  settled: Settlement | Uint8Array
  centres: readonly CostCentre[]
  /** The month before, and unit costs. */
  beside: BesideStatements
  /** Only that cost centre and what lies below it; null for all. */
  centre: string | null
  /** Names of people by their ids. */
  people: Readonly<Record<string, string>>
}
