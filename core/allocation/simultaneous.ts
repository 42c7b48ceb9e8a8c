/**
 * Settles pools that serve each other by simultaneous equations: what a pool has is what was put on it and its part of what every pool has.
 * Exact: whole numbers throughout, by elimination without fractions (Bareiss 1968).
 * @param amounts what was put on each pool.
 * @param served by pool, the weights by which it is divided: one for each pool, and last those of the cost centres together. None
 * negative, and of every pool something reaches a cost centre, over others or at once.
 * @returns as parts of `of`: what each pool `has` in the end, and what of it cost centres bear, which adds up to the amounts.
 * @throws RangeError where there is no single solution.
 * Source: the reciprocal method of cost accounting (common practice, no source).
 */
export function simultaneous(
  amounts: readonly bigint[],
  served: readonly (readonly bigint[])[],
): { has: bigint[]; keeps: bigint[]; of: bigint } {
  const size = amounts.length
  const weightOf = served.map(row => row.reduce((a, b) => a + b, 0n))
  // with y = what a pool has by unit of its weights: W_i y_i - sum over j of w_ji y_j = amount_i
  const rows = amounts.map((amount, i) => [
    ...Array.from({ length: size }, (_, j) => (i === j ? weightOf[i]! : 0n) - served[j]![i]!),
    amount,
  ])
  const of = eliminate(rows)
  const units = rows.map(row => row[size]!)
  return { has: units.map((unit, i) => unit * weightOf[i]!), keeps: units.map((unit, i) => unit * served[i]![size]!), of }
}

/** Brings a square system with its right side to diagonal form. @returns what every unknown is a part of; the right side has the parts. */
function eliminate(rows: bigint[][]): bigint {
  const size = rows.length
  let before = 1n
  for (let at = 0; at < size; at++) {
    const pivot = rows.findIndex((row, i) => i >= at && row[at] !== 0n)
    if (pivot < 0) throw new RangeError('the equations have no single solution')
    ;[rows[at], rows[pivot]] = [rows[pivot]!, rows[at]!]
    const own = rows[at]!
    const head = own[at]!
    for (let i = 0; i < size; i++) {
      if (i === at) continue
      const row = rows[i]!
      const factor = row[at]!
      for (let column = 0; column <= size; column++) row[column] = (row[column]! * head - factor * own[column]!) / before
    }
    before = head
  }
  return before
}
