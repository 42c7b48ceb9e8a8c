import type { UpliftLine } from '../uplift-lines'
import { adjustmentWords, causeWords, upliftWords, type MonthStatements } from './month-statements'

/** The columns of a month's statements as a table. */
export const statementHeads = [
  ...['Month', 'Cost centre', 'Code', 'Owner', 'Currency', 'Kind', 'What', 'How', 'Of pool', 'Amount', 'Uplift'],
] as const

/**
 * A month's statements as rows, a line each; what is unallocated last. The amounts of a currency add up to the bill and the adjustments;
 * uplifts have a column of their own.
 * @param owner the name of whoever answers for a cost centre.
 */
export function statementRows({ month, statements, unallocated }: MonthStatements, owner: (id: string) => string): (string | null)[][] {
  const rows: (string | null)[][] = []
  for (const { centre, currency, lines, adjustments, uplifts } of statements) {
    const head = [month, centre.name, centre.code ?? null, centre.owner && owner(centre.owner), currency]
    for (const line of lines)
      rows.push(
        line.kind === 'direct'
          ? [...head, 'direct', line.service ?? 'no service', null, null, line.amount, null]
          : [...head, 'share', line.pool, [line.label, line.note].filter(Boolean).join('; '), line.ofPool, line.amount, null],
      )
    for (const { month: of, cause, lines: parts } of adjustments)
      for (const part of parts)
        rows.push([...head, 'adjustment', adjustmentWords(part), `${of}: ${causeWords[cause]}`, null, part.amount, null])
    rows.push(...uplifts.map(one => upliftRow(head, one)))
  }
  for (const { currency, total, adjustments, uplifts } of unallocated) {
    const head = [month, 'unallocated', null, null, currency]
    if (total !== '0') rows.push([...head, 'unallocated', null, null, null, total, null])
    for (const { month: of, cause, amount } of adjustments)
      rows.push([...head, 'adjustment', null, `${of}: ${causeWords[cause]}`, null, amount, null])
    rows.push(...uplifts.map(one => upliftRow(head, one)))
  }
  return rows
}

const upliftRow = (head: (string | null)[], one: UpliftLine) => [
  ...head,
  ...['uplift', `${one.name}: ${one.label}`, upliftWords(one), null, null, one.amount],
]
