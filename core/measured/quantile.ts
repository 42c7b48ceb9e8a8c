/**
 * The value that so many of a hundred values do not exceed, by the nearest rank: of n values in order the ⌈p/100 · n⌉-th. Hours that were
 * not measured (NaN) do not count. Source of the definition: Hyndman and Fan, Sample Quantiles in Statistical Packages (1996), definition
 * 1.
 * @param percent above 0, at most 100.
 * @returns null where nothing was measured.
 */
export function quantile(values: Float32Array, percent: number): number | null {
  const known = values.filter(value => !Number.isNaN(value)).sort()
  return known.length ? known[Math.ceil((percent / 100) * known.length) - 1]! : null
}
