/** Numbers from 0 (inclusive) to 1, the same for the same seed. */
export type Random = () => number

/** Small fast counter generator with 128 bits of state (sfc32, C. Doty-Humphrey, public domain). */
export function seeded(seed: number): Random {
  let a = 0x9e3779b9,
    b = 0x243f6a88,
    c = seed >>> 0,
    counter = 1
  const next = () => {
    const t = (((a + b) | 0) + counter) | 0
    counter = (counter + 1) | 0
    a = b ^ (b >>> 9)
    b = (c + (c << 3)) | 0
    c = (c << 21) | (c >>> 11)
    c = (c + t) | 0
    return (t >>> 0) / 4_294_967_296
  }
  for (let i = 0; i < 15; i++) next() // the first ones still look like the seed
  return next
}

/** A standard normal number (polar method of Marsaglia and Bray, 1964). */
function normal(random: Random): number {
  for (;;) {
    const x = 2 * random() - 1
    const y = 2 * random() - 1
    const s = x * x + y * y
    if (s > 0 && s < 1) return x * Math.sqrt((-2 * Math.log(s)) / s)
  }
}

/** A gamma number of a shape of at least one (Marsaglia and Tsang, 2000). */
function gamma(random: Random, shape: number): number {
  const d = shape - 1 / 3
  const c = 1 / Math.sqrt(9 * d)
  for (;;) {
    const x = normal(random)
    const v = (1 + c * x) ** 3
    if (v > 0 && Math.log(1 - random()) < 0.5 * x * x + d - d * v + d * Math.log(v)) return d * v
  }
}

/**
 * A number between low and high, most often near likely: the PERT distribution with λ = 4, a beta distribution of the shapes
 * 1 + 4 (likely − low) / (high − low) and 1 + 4 (high − likely) / (high − low). Its mean is (low + 4 likely + high) / 6.
 */
export function pert(random: Random, low: number, likely: number, high: number): number {
  if (high <= low) return likely
  const x = gamma(random, 1 + (4 * (likely - low)) / (high - low))
  const y = gamma(random, 1 + (4 * (high - likely)) / (high - low))
  return low + ((high - low) * x) / (x + y)
}
