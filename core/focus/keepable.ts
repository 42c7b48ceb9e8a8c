import type { Wrong } from './problem'

const NUL: Wrong = { reason: 'the text holds a NUL byte', mend: 'Remove the byte; text cannot hold it.' }
const NO_TEXT: Wrong = {
  reason: 'the text is no text: half of a pair of surrogates, or bytes that are not UTF-8',
  mend: 'Save the file in the encoding UTF-8.',
}

/** Why a text cannot be kept: a NUL, or what is no character. Null where it can. */
export function whyNotKept(text: string): Wrong | null {
  if (text.includes('\0')) return NUL
  return text.isWellFormed() ? null : NO_TEXT
}

/** The same of all names and texts in a value that was read from JSON, where they may be written as escapes. */
export function whyNoneKept(value: unknown): Wrong | null {
  if (typeof value === 'string') return whyNotKept(value)
  if (typeof value !== 'object' || value === null) return null
  for (const [name, own] of Object.entries(value)) {
    const why = whyNotKept(name) ?? whyNoneKept(own)
    if (why) return why
  }
  return null
}
