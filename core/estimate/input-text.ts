import { decimalText } from '../money/decimal'
import type { Field } from './components/field'
import { readHours } from './hours-text'
import { readNumber } from './number-text'

/** Writes a number for people: the page in the reader's format, documents with blanks between thousands. */
export type NumberWords = (text: string) => string

/** Blanks between thousands. */
export const grouped: NumberWords = text => text.replace(/^-?\d+/, whole => whole.replace(/\B(?=(\d{3})+$)/g, '\u00A0'))

function numberWords(text: string, write: NumberWords): string {
  const number = readNumber(text)
  if (!number) return text
  const all = number.isRange ? [number.low, number.likely, number.high] : [number.likely]
  // long numbers are shortened where nothing is lost by it; three of them in one cell sooner
  const scale = all.every(n => n.gte(1_000_000) && n.mod(10_000).eq(0)) ? { by: 1_000_000, word: ' M' } : number.isRange && all.every(n => n.gte(1000) && n.mod(10).eq(0)) ? { by: 1000, word: ' k' } : { by: 1, word: '' }
  return all.map(n => write(decimalText(n.div(scale.by)))).join('\u2009–\u2009') + scale.word
}

/** An input as it is shown: numbers with their unit, ranges and schedules in words. */
export function inputText(field: Field, text: string, write: NumberWords = grouped): string {
  if (field.type === 'choice' || field.type === 'text') return text
  if (field.type === 'number') return readNumber(text) ? `${numberWords(text, write)}${field.unit ? ` ${field.unit}` : ''}` : text
  const hours = readHours(text)
  if (!hours) return text
  if (hours.shape === 'week') return `${decimalText(hours.days)} d × ${decimalText(hours.hoursPerDay)} h`
  return hours.shape === 'percent' ? `${numberWords(text.replace('%', '').trim(), write)} %` : `${numberWords(text, write)} h`
}
