/**
 * Divides whole units among weights by the method of largest remainders (Hamilton's): each gets the whole part of its exact
 * share, and what is left goes one by one to the largest fractions. Ties go to the earlier position.
 * @param units what is divided, in whole units (cents, seats); may be negative.
 * @param weights none negative, at least one above zero.
 * @returns one whole number per weight; they add up to `units`.
 * Source: largest remainder method, Hamilton 1791.
 */
export function apportion(units: bigint, weights: readonly bigint[]): bigint[] {
  if (weights.some(weight => weight < 0n)) throw new RangeError('a weight is negative')
  const total = weights.reduce((a, b) => a + b, 0n)
  if (total === 0n) throw new RangeError('the weights add up to zero')
  const size = units < 0n ? -units : units
  const parts = weights.map(weight => (size * weight) / total)
  let left = size - parts.reduce((a, b) => a + b, 0n)
  const byRemainder = weights
    .map((weight, index) => ({ index, remainder: (size * weight) % total }))
    .sort((a, b) => (a.remainder === b.remainder ? a.index - b.index : a.remainder > b.remainder ? -1 : 1))
  for (const { index } of byRemainder) {
    if (left === 0n) break
    parts[index]! += 1n
    left -= 1n
  }
  return units < 0n ? parts.map(part => -part) : parts
}
