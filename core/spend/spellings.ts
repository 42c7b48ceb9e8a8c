import { oneSlip } from '../text/one-slip'

/** Values that are likely spellings of one: the same letters and digits, apart from a word like «team», a plural or one slip. */
export type SpellingGroup = { values: string[] }

const FILLERS = /(team|group|dept|department|squad)$/
/** Names shorter than this may differ by one letter and be two things. */
const SLIP_LENGTH = 6

/** The letters and digits of a value, without case, marks, filler words and plural. */
function plainSpelling(value: string): string {
  const letters = value
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, '')
  const bare = letters.replace(FILLERS, '') || letters
  return bare.length > 3 ? bare.replace(/s$/, '') : bare
}

/** Groups of two and more values that are likely one, in the order of the alphabet. Numbers are never taken for slips of each other. */
export function likelySpellings(values: readonly string[]): SpellingGroup[] {
  const groups: { plain: string; values: string[] }[] = []
  for (const value of [...new Set(values)].sort()) {
    const plain = plainSpelling(value)
    const known = groups.find(
      group =>
        group.plain === plain ||
        (plain.length >= SLIP_LENGTH &&
          group.plain.length >= SLIP_LENGTH &&
          !/\d/.test(plain + group.plain) &&
          oneSlip(plain, group.plain)),
    )
    if (known) known.values.push(value)
    else groups.push({ plain, values: [value] })
  }
  return groups.filter(group => group.values.length > 1).map(({ values }) => ({ values }))
}
