/** What the small letters of every text that fits a pattern begin with. */
export const headOf = (pattern: string): string => pattern.toLowerCase().split('*')[0]!

/**
 * Whether a text in small letters fits a pattern, in which `*` stands for any text; in a time that grows with both, no faster. Capitals and
 * small letters of the pattern are the same.
 */
export function patternTest(pattern: string): (lower: string | null) => boolean {
  const [head, ...others] = pattern.toLowerCase().split('*') as [string, ...string[]]
  const tail = others.pop()
  if (tail === undefined) return text => text === head
  return text => {
    if (text === null || !text.startsWith(head)) return false
    let from = head.length
    for (const part of others) {
      const at = text.indexOf(part, from)
      if (at < 0) return false
      from = at + part.length
    }
    return text.length - tail.length >= from && text.endsWith(tail)
  }
}
