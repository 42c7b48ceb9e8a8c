import { variantName, variantsOf } from '../../ratecard/find-price'
import type { Meter, RateCard } from '../../ratecard/rate-card'
import { ALWAYS_ON, mostHours, readHours } from '../sheet/hours-text'
import { readNumber } from '../sheet/number-text'
import { readTyped } from '../sheet/typed-text'
import type { ChoiceField, Field, HoursField, Inputs, NumberField, SheetColumn } from './field-types'

export type * from './field-types'

type NumberOptions = Pick<NumberField, 'help' | 'column' | 'whole' | 'fixed' | 'optional' | 'follows' | 'applies' | 'usual'> & {
  unit?: string
  min?: number
  max: number
}

/** A number from a least to a most, zero unless said otherwise. */
export function number(name: string, label: string, { min = 0, ...options }: NumberOptions): NumberField {
  return { type: 'number', name, label, min, ...options }
}

/** How many of it there are. */
export function countField(
  help = 'How many of them.',
  options: Partial<NumberOptions> & { name?: string; label?: string } = {},
): NumberField {
  return number(options.name ?? 'count', options.label ?? 'count', {
    column: 'count',
    whole: true,
    max: 10_000,
    usual: '1',
    ...options,
    help,
  })
}

/** How long each one runs. */
export function hoursField(
  help = 'Always on, hours a month such as 300, a share such as 55 %, or a week such as 5d x 10h.',
  options: Partial<Pick<HoursField, 'name' | 'label' | 'column' | 'usual' | 'applies'>> = {},
): HoursField {
  return { type: 'hours', name: 'hoursPerMonth', label: 'runs', unit: 'h', column: 'runs', usual: ALWAYS_ON, ...options, help }
}

/** A choice of what the card offers; usually the first of it. */
export function choice(
  name: string,
  label: string,
  options: ChoiceField['options'],
  more: Pick<ChoiceField, 'help' | 'column' | 'means' | 'applies'> & { usual?: ChoiceField['usual'] },
): ChoiceField {
  return { type: 'choice', name, label, options, ...more, usual: more.usual ?? ((card, region) => options(card, region)[0] ?? '') }
}

/** A choice among the variants of a meter: sizes, classes, tiers. */
export function variantChoice(name: string, label: string, meter: Meter, options: Parameters<typeof choice>[3]): ChoiceField {
  return { ...choice(name, label, (card, region) => variantsOf(card, meter, region), { ...options, means: meansVariant(meter) }), meter }
}

/** Says that a choice is a variant of a meter, but for words that are the same on every card. */
export function meansVariant(meter: Meter, ...words: string[]): NonNullable<ChoiceField['means']> {
  return value => (words.includes(value) ? null : { meter, variant: value, option: variantName })
}

/** A choice among words that are the same on every card. */
export function words(
  name: string,
  label: string,
  list: readonly string[],
  help: string,
  column?: SheetColumn,
  more: Pick<ChoiceField, 'applies'> = {},
): ChoiceField {
  return choice(name, label, () => [...list], { help, column, ...more })
}

/** What the field begins with on a card, beside the inputs that are there already. */
export function usualValue({ usual }: Field, card: RateCard, region: string, inputs: Inputs = {}): string {
  return typeof usual === 'string' ? usual : usual(card, region, inputs)
}

/** Hours that any month can have. */
const MOST_HOURS = 744

/**
 * Checks one input the same way for mouse, keyboard, wheel, paste and import.
 * @param monthHours hours of the estimate's month.
 * @returns what is wrong and how to mend it; null when it fits.
 */
export function fieldProblem(field: Field, value: string, card: RateCard, region: string, monthHours: number = MOST_HOURS): string | null {
  switch (field.type) {
    case 'text':
      return value.length <= field.maxLength ? null : `${field.label} may have ${field.maxLength} characters`
    case 'choice': {
      const options = field.options(card, region)
      if (options.includes(value)) return null
      if (!options.length) return `${card.provider} offers no ${field.label} for this in ${region}`
      const some = `${options.slice(0, 4).join(', ')}${options.length > 4 ? ' …' : ''}`
      return value === ''
        ? `choose ${field.label}: ${some}`
        : `«${value}» is not offered by ${card.provider} in ${region}; choose one of ${some}`
    }
    case 'hours': {
      const typed = readHours(value)
      if (!typed) return unreadable(field, value)
      const isNegative = 'number' in typed && typed.number.low.lt(0)
      return mostHours(typed, monthHours).gt(monthHours) || isNegative
        ? `${field.label} must be from 0 to ${monthHours} h: the month has no more`
        : null
    }
    case 'number': {
      if (value === '' && field.optional) return null
      const typed = readNumber(value)
      if (!typed) return unreadable(field, value)
      if (typed.isRange && field.fixed) return `${field.label} must be one number, not a range`
      if (typed.low.lt(field.min) || typed.high.gt(field.max))
        return `${field.label} must be from ${field.min} to ${field.max}${field.unit ? ` ${field.unit}` : ''}`
      if (field.whole && [typed.low, typed.likely, typed.high].some(n => !n.round(0, 0).eq(n)))
        return `${field.label} must be a whole number`
      return null
    }
  }
}

function unreadable(field: Field, value: string): string {
  const read = readTyped(field, value)
  return 'problem' in read ? read.problem : `${field.label}: «${value}» cannot be read`
}
