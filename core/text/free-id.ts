/** An id is part of addresses: no longer than this, but for its number. */
const LONGEST = 60

/**
 * An id made of a name that nothing has yet: small letters and digits of any script, parted by hyphens.
 * @param taken the ids that there are.
 */
export function freeId(name: string, taken: Iterable<string>): string {
  const others = new Set(taken)
  const words = name.toLowerCase().match(/[\p{Letter}\p{Number}]+/gu) ?? ['new']
  const base = words.join('-').slice(0, LONGEST)
  let id = base
  for (let number = 2; others.has(id); number++) id = `${base}-${number}`
  return id
}
