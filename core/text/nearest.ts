/**
 * How many letters must be added, left out, changed or swapped with their neighbour to make one text the other (restricted
 * Damerau–Levenshtein distance).
 */
function editDistance(a: string, b: string): number {
  const rows: number[][] = [Array.from({ length: b.length + 1 }, (_, j) => j)]
  for (let i = 1; i <= a.length; i++) {
    const row = [i]
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1
      let least = Math.min(rows[i - 1]![j]! + 1, row[j - 1]! + 1, rows[i - 1]![j - 1]! + same)
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) least = Math.min(least, rows[i - 2]![j - 2]! + 1)
      row.push(least)
    }
    rows.push(row)
  }
  return rows[a.length]![b.length]!
}

/**
 * The word that a misspelt one most likely means: one that begins with it, or at most a third of its letters apart; null when none is that
 * near.
 */
export function nearestWord(word: string, words: readonly string[]): string | null {
  const plain = (text: string) =>
    text
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, ' ')
      .trim()
  const wanted = plain(word)
  const begun = wanted.length > 3 ? words.find(known => plain(known).startsWith(`${wanted} `)) : undefined
  if (begun) return begun
  const ranked = words.map(known => ({ known, distance: editDistance(wanted, plain(known)) })).sort((a, b) => a.distance - b.distance)
  const [first] = ranked
  return first && first.distance <= Math.max(1, Math.floor(wanted.length / 3)) ? first.known : null
}
