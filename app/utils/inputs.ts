import type { Field } from '../../core/estimate/components/field'
import { readHours } from '../../core/estimate/hours-text'
import { readNumber } from '../../core/estimate/number-text'

const plain = (text: string) => {
  const number = readNumber(text)
  if (!number) return text
  return number.isRange ? [number.low, number.likely, number.high].map(n => quantity(n.toFixed())).join(' – ') : quantity(number.likely.toFixed())
}

/** An input as it is shown: numbers in the reader's format with their unit, ranges and schedules in words. */
export function shownInput(field: Field, text: string): string {
  if (field.type === 'choice' || field.type === 'text') return text
  if (field.type === 'number') return readNumber(text) ? `${plain(text)}${field.unit ? ` ${field.unit}` : ''}` : text
  const hours = readHours(text)
  if (!hours) return text
  if (hours.shape === 'week') return `${hours.days.toFixed()} d × ${hours.hoursPerDay.toFixed()} h`
  return hours.shape === 'percent' ? `${plain(text.replace('%', '').trim())} %` : `${plain(text)} h`
}

/** The letter of a scenario's column: A is the estimate as it stands. */
export const columnLetter = (at: number) => String.fromCharCode(65 + at)
