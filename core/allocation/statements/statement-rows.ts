import { adjustmentWords, causeWords, type MonthStatements } from './month-statements'

/** The columns of a month's statements as a table. */
export const statementHeads = [
  ...['Month', 'Cost centre', 'Code', 'Owner', 'Currency', 'Kind', 'What', 'How', 'Of pool', 'Amount'],
] as const

/**
 * A month's statements as rows, a line each; what is unallocated last. The amounts of a currency add up to the bill and the adjustments.
 * @param owner the name of whoever answers for a cost centre.
 */
export function statementRows({ month, statements, unallocated }: MonthStatements, owner: (id: string) => string): (string | null)[][] {
  const rows: (string | null)[][] = []
  for (const { centre, currency, lines, adjustments } of statements) {
    const head = [month, centre.name, centre.code ?? null, centre.owner && owner(centre.owner), currency]
    for (const line of lines)
      rows.push(
        line.kind === 'direct'
          ? [...head, 'direct', line.service ?? 'no service', null, null, line.amount]
          : [...head, 'share', line.pool, [line.label, line.note].filter(Boolean).join('; '), line.ofPool, line.amount],
      )
    for (const { month: of, cause, lines: parts } of adjustments)
      for (const part of parts) rows.push([...head, 'adjustment', adjustmentWords(part), `${of}: ${causeWords[cause]}`, null, part.amount])
  }
  for (const { currency, total, adjustments } of unallocated) {
    const head = [month, 'unallocated', null, null, currency]
    if (total !== '0') rows.push([...head, 'unallocated', null, null, null, total])
    for (const { month: of, cause, amount } of adjustments)
      rows.push([...head, 'adjustment', null, `${of}: ${causeWords[cause]}`, null, amount])
  }
  return rows
}
