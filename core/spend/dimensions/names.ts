/** What follows a prefix in a name; null where it does not begin with it or nothing follows. */
export const after = (name: string, prefix: string): string | null =>
  name.startsWith(prefix) && name.length > prefix.length ? name.slice(prefix.length) : null

/** Trees are rolled up to at most so many levels. */
export const LEVELS = 6

/** The level that a name such as `Container/2` asks for; null for another name. */
export function levelOf(name: string, prefix: string): number | null {
  const text = after(name, prefix)
  return text !== null && /^[1-9]$/.test(text) && Number(text) <= LEVELS ? Number(text) : null
}

/** `Container/1`, `Container/2` … up to a number of levels. */
export const levels = (prefix: string, count: number): string[] => Array.from({ length: count }, (_, i) => `${prefix}${i + 1}`)

/** The first `level` names of a path; what lies higher up stays with its own name, so that nothing is lost when rolling up. */
export function rolledUp(path: readonly string[], level: number): string | null {
  return path.length ? path.slice(0, level).join('/') : null
}

/** A value as text; a null, empty or missing one is none. */
export function asText(value: unknown): string | null {
  return value === null || value === undefined || value === '' ? null : typeof value === 'object' ? JSON.stringify(value) : String(value)
}

/** All keys of some entries' objects, in the order of the alphabet. */
export function keysOf(entries: number, read: (id: number) => Record<string, unknown>): string[] {
  const keys = new Set<string>()
  for (let id = 0; id < entries; id++) for (const key of Object.keys(read(id))) keys.add(key)
  return [...keys].sort()
}
