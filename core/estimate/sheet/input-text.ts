import { decimalText, type Decimal } from '../../money/decimal'
import type { Field } from '../components/field'
import { readHours } from './hours-text'
import { readNumber, type TypedNumber } from './number-text'

/**
 * Writes a number for people: commas between thousands, and never exactly three decimals behind up to three digits, which could be read
 * as thousands. `readTyped` takes it back.
 */
export function grouped(number: Decimal): string {
  const text = decimalText(number)
  const safe = /^-?[1-9]\d{0,2}\.\d{3}$/.test(text) ? `${text}0` : text
  return safe.replace(/^-?\d+/, whole => whole.replace(/\B(?=(\d{3})+$)/g, ','))
}

function numberWords(number: TypedNumber): string {
  const all = number.isRange ? [number.low, number.likely, number.high] : [number.likely]
  // long numbers are shortened where nothing is lost by it; three of them in one cell sooner
  const scale = all.every(n => n.gte(1_000_000) && n.mod(10_000).eq(0))
    ? { by: 1_000_000, word: ' million' }
    : number.isRange && all.every(n => n.gte(1000) && n.mod(10).eq(0))
      ? { by: 1000, word: ' k' }
      : { by: 1, word: '' }
  return all.map(n => grouped(n.div(scale.by))).join('\u2009–\u2009') + scale.word
}

/** An input as it is shown everywhere: numbers with their unit, ranges and schedules in words. */
export function inputText(field: Field, text: string): string {
  if (field.type === 'choice' || field.type === 'text') return text
  if (field.type === 'number') {
    const number = readNumber(text)
    return number ? `${numberWords(number)}${field.unit ? ` ${field.unit}` : ''}` : text
  }
  const hours = readHours(text)
  switch (hours?.shape) {
    case undefined:
    case 'always':
      return text
    case 'week':
      return `${decimalText(hours.days)} d × ${decimalText(hours.hoursPerDay)} h`
    case 'percent':
      return `${numberWords(hours.number)} %`
    case 'hours':
      return `${numberWords(hours.number)} h`
  }
}
