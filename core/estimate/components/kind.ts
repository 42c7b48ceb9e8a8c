import { z } from 'zod'
import { Decimal, parseDecimal, type DecimalText } from '../../money/decimal'
import type { RateCard } from '../../ratecard/rate-card'
import type { Working } from '../../working/working'
import type { WayPrice } from '../ways-to-pay'

/** A field's place in the sheet; a field without one shows in the opened row only. */
export type SheetColumn = 'size' | 'amount' | 'runs' | 'count' | 'pays'

export type Field = {
  name: string
  label: string
  unit?: string
  help: string
  column?: SheetColumn
} & (
  | { type: 'number', min: number, max: number, whole?: boolean, usual: string }
  | { type: 'choice', options: (card: RateCard, region: string) => string[], usual: (card: RateCard, region: string) => string }
)

/** Where a component is priced: the card, the region, the hours of its month, and what rows before have drawn of shared allowances. */
export type PriceContext = {
  card: RateCard
  region: string
  /** 730, or the real hours of a named month when what ran is priced again. */
  monthHours: number
  countFreeAllowance: boolean
  /** Units that rows before have drawn, by meter. */
  drawn: Map<string, Decimal>
}

/** What a component costs: each way to pay, or what keeps it from being priced. */
export type ComponentPrice =
  | { ok: true, ways: WayPrice[], unitPrice: { value: DecimalText, per: string } }
  | { ok: false, field: string, reason: string }

export type Inputs = Record<string, string>

/** One kind of thing that can be priced. The sheet, the opened row, checks and JSON are driven from this object. */
export type ComponentKind = {
  kind: string
  label: string
  /** Plain words by which it is found. */
  words: string[]
  fields: Field[]
  price: (inputs: Inputs, context: PriceContext) => ComponentPrice
}

/** Checks one input the same way for mouse, keyboard, paste and import. @returns what is wrong and how to mend it; null when it fits. */
export function fieldProblem(field: Field, value: string, card: RateCard, region: string): string | null {
  if (field.type === 'choice') {
    const options = field.options(card, region)
    return options.includes(value) ? null : options.length ? `«${value}» is not offered here; choose one of ${options.slice(0, 4).join(', ')}${options.length > 4 ? ' …' : ''}` : `${card.provider} offers none in ${region}`
  }
  const number = parseDecimal(value.trim())
  if (!number) return `${field.label} must be a number, such as ${field.usual}`
  if (number.lt(field.min) || number.gt(field.max)) return `${field.label} must be from ${field.min} to ${field.max}${field.unit ? ` ${field.unit}` : ''}`
  if (field.whole && !number.round(0, 0).eq(number)) return `${field.label} must be a whole number`
  return null
}

/** The Zod schema of a kind's inputs on a rate card, made from its fields. */
export function inputSchema({ fields }: ComponentKind, card: RateCard, region: string) {
  return z.object(Object.fromEntries(fields.map(field => [field.name, z.string().superRefine((value, context) => {
    const message = fieldProblem(field, value, card, region)
    if (message) context.addIssue({ code: 'custom', message })
  })])))
}

/** What a new component of the kind begins with. */
export function usualInputs({ fields }: ComponentKind, card: RateCard, region: string): Inputs {
  return Object.fromEntries(fields.map(field => [field.name, field.type === 'choice' ? field.usual(card, region) : field.usual]))
}

/** The inputs as they are read: what is missing is as usual. */
export function completeInputs(kind: ComponentKind, inputs: Record<string, unknown>, card: RateCard, region: string): Inputs {
  const usual = usualInputs(kind, card, region)
  return Object.fromEntries(kind.fields.map(({ name }) => [name, inputs[name] === undefined ? usual[name]! : String(inputs[name])]))
}

export const amount = (text: string) => new Decimal(text.trim())
export const missingPrice = (field: string, card: RateCard, region: string, what: string): ComponentPrice =>
  ({ ok: false, field, reason: `${card.provider} has no price for ${what} in ${region}` })
export type { Working }
