import { variantsOf, type Meter, type RateCard } from '../../ratecard/rate-card'
import { mostHours, readHours } from '../hours-text'
import { readNumber } from '../number-text'

/** A field's place in the sheet; a field without one shows in the opened row only. */
export type SheetColumn = 'where' | 'size' | 'amount' | 'runs' | 'count' | 'pays'

type Common = { name: string, label: string, unit?: string, help: string, column?: SheetColumn }

/** One input of a component kind, with its unit, limits and help. Sheet, form, checks, JSON Schema and documentation are made from it. */
export type Field = NumberField | HoursField | ChoiceField | TextField
/** A number; unless `fixed`, a person may give it as low, likely and high. */
export type NumberField = Common & { type: 'number', min: number, max: number, whole?: boolean, fixed?: boolean, usual: string | ((card: RateCard, region: string) => string) }
/** Hours a month, a share of the month, or a weekly schedule. */
export type HoursField = Common & { type: 'hours', usual: string }
/** A choice; with `meter` where the options are the variants that the card has of one. */
export type ChoiceField = Common & { type: 'choice', meter?: Meter, options: (card: RateCard, region: string) => string[], usual: (card: RateCard, region: string) => string }
export type TextField = Common & { type: 'text', maxLength: number, usual: string }

type NumberOptions = Pick<NumberField, 'help' | 'column' | 'whole' | 'fixed' | 'usual'> & { unit?: string, min?: number, max: number }

/** A number from a least to a most, zero unless said otherwise. */
export function number(name: string, label: string, { min = 0, ...options }: NumberOptions): NumberField {
  return { type: 'number', name, label, min, ...options }
}

/** How many of it there are. */
export function countField(help = 'How many of them.', options: Partial<NumberOptions> & { name?: string, label?: string } = {}): NumberField {
  return number(options.name ?? 'count', options.label ?? 'count', { column: 'count', whole: true, max: 10_000, usual: '1', ...options, help })
}

/** How long each one runs. */
export function hoursField(help = 'Hours a month (730 is always on), a share such as 55 %, or a week such as 5d x 10h.', options: Partial<Pick<HoursField, 'name' | 'label' | 'column' | 'usual'>> = {}): HoursField {
  return { type: 'hours', name: 'hoursPerMonth', label: 'runs', unit: 'h', column: 'runs', usual: '730', ...options, help }
}

/** A choice of what the card offers; usually the first of it. */
export function choice(name: string, label: string, options: ChoiceField['options'], { help, column, usual }: { help: string, column?: SheetColumn, usual?: ChoiceField['usual'] }): ChoiceField {
  return { type: 'choice', name, label, help, column, options, usual: usual ?? ((card, region) => options(card, region)[0] ?? '') }
}

/** A choice among the variants of a meter: sizes, classes, tiers. */
export function variantChoice(name: string, label: string, meter: Meter, options: Parameters<typeof choice>[3]): ChoiceField {
  return { ...choice(name, label, (card, region) => variantsOf(card, meter, region), options), meter }
}

/** A choice among words that are the same on every card. */
export function words(name: string, label: string, list: readonly string[], help: string, column?: SheetColumn): ChoiceField {
  return choice(name, label, () => [...list], { help, column })
}

/** What the field begins with on a card. */
export function usualValue({ usual }: Field, card: RateCard, region: string): string {
  return typeof usual === 'string' ? usual : usual(card, region)
}

/** Hours that any month can have. */
export const MOST_HOURS = 744

/**
 * Checks one input the same way for mouse, keyboard, wheel, paste and import.
 * @param monthHours hours of the estimate's month.
 * @returns what is wrong and how to mend it; null when it fits.
 */
export function fieldProblem(field: Field, value: string, card: RateCard, region: string, monthHours: number = MOST_HOURS): string | null {
  switch (field.type) {
    case 'text': return value.length <= field.maxLength ? null : `${field.label} may have ${field.maxLength} characters`
    case 'choice': {
      const options = field.options(card, region)
      if (options.includes(value)) return null
      if (!options.length) return `${card.provider} offers no ${field.label} for this in ${region}`
      return value === '' ? `choose ${field.label}: ${options.slice(0, 4).join(', ')}${options.length > 4 ? ' …' : ''}` : `«${value}» is not offered by ${card.provider} in ${region}; choose one of ${options.slice(0, 4).join(', ')}${options.length > 4 ? ' …' : ''}`
    }
    case 'hours': {
      const typed = readHours(value)
      if (!typed) return `${field.label} must be hours such as 730, a share such as 55 %, or a week such as 5d x 10h`
      return mostHours(typed, monthHours).gt(monthHours) || (typed.shape !== 'week' && typed.number.low.lt(0)) ? `${field.label} must be from 0 to ${monthHours} h: the month has no more` : null
    }
    case 'number': {
      const typed = readNumber(value)
      if (!typed) return `${field.label} must be a number, such as ${usualValue(field, card, region)}${field.fixed ? '' : ', or low..likely..high'}`
      if (typed.isRange && field.fixed) return `${field.label} must be one number, not a range`
      if (typed.low.lt(field.min) || typed.high.gt(field.max)) return `${field.label} must be from ${field.min} to ${field.max}${field.unit ? ` ${field.unit}` : ''}`
      if (field.whole && [typed.low, typed.likely, typed.high].some(n => !n.round(0, 0).eq(n))) return `${field.label} must be a whole number`
      return null
    }
  }
}
