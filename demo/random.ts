/**
 * A number from 0 to below 1 that depends on nothing but its keys: the same keys always give the same number. (FNV-1a, then a mixing step.)
 */
export function drawn(...keys: (string | number)[]): number {
  let hash = 0x811c9dc5
  for (const key of keys) {
    for (const c of String(key)) hash = Math.imul(hash ^ c.codePointAt(0)!, 0x01000193)
    hash = Math.imul(hash ^ 0x2f, 0x01000193)
  }
  hash = Math.imul(hash ^ (hash >>> 15), 0x85ebca6b)
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35)
  return ((hash ^ (hash >>> 16)) >>> 0) / 2 ** 32
}

/** Around 1, by at most `spread` up or down. */
export function wobble(spread: number, ...keys: (string | number)[]): number {
  return 1 + (drawn(...keys) * 2 - 1) * spread
}
