import { z } from 'zod'
import { zero } from '../../money/decimal'
import type { DecimalText } from '../../money/decimal'
import type { Meter } from '../../ratecard/meters'
import { allowanceOf, alone, isPooled, priceQuantity } from '../../ratecard/price-quantity'
import { findPrice, type PriceLine, type RateCard } from '../../ratecard/rate-card'
import { add, input, multiply, type Working } from '../../working/working'
import { hoursWorking, readHours } from '../hours-text'
import { readNumber, type TypedNumber } from '../number-text'
import { fieldProblem, usualValue, type Field } from './field'

export type Inputs = Record<string, string>

/** Why something cannot be priced: the field it lies at, and what to do. */
export type Refusal = { field: string, reason: string, instead?: { value: string, label: string } }

/** Ends the pricing of one row; caught where rows are priced. */
export class NotPriced extends Error {
  constructor(readonly refusal: Refusal) {
    super(refusal.reason)
  }
}

/** What a component is made of, before any way to pay: how it is charged in a month. */
export type Charges = {
  /** What the month costs as it runs. */
  recurring: Working[]
  /** What a commitment can be made to: so many of a line for so many hours. Not in `recurring`. */
  committable?: { label: string, line: PriceLine, count: Working, hours: Working }
  /** Paid once, when it begins. */
  once?: Working[]
  /** Where months differ: each of them. `recurring` is then what comes on top in every month. */
  months?: Working[]
  unitPrice: { value: DecimalText, per: string } | null
  /** How many of it, for how long, and how much: what an organisation's own charges multiply. */
  count?: Working
  hours?: Working
  amounts?: { unit: string, quantity: Working }[]
  /** What its cost is worth knowing for each of, such as a user. */
  each?: { label: string, count: Working }
  /** A sentence worth knowing before one believes the price. */
  notices?: string[]
  /** Figures that are not money, such as machines needed. */
  facts?: { label: string, working: Working, unit?: string }[]
}

/** Where a row is priced. */
export type Place = { card: RateCard, region: string }
export type PriceSettings = {
  /** 730, or the real hours of a named month when what ran is priced again. */
  monthHours: number
  useFreeAllowance: boolean
}
/** Quantities that rows before have drawn of lines with tiers or free units, by SKU. */
export type Pool = Map<string, Working>

/** What a kind's pricing works with: its inputs as Workings, the card's lines at its place, and the pool. */
export type Builder = Place & PriceSettings & {
  /** The typed number as Workings: a range counts with its likely value. */
  number: (name: string) => Working
  /** The typed number itself, for what only decides on structure (a number of months, whether something is wanted). */
  typed: (name: string) => TypedNumber
  hours: (name?: string) => Working
  /** A choice or text. */
  text: (name: string) => string
  /** The card's line here. @throws NotPriced when it has none. */
  line: (meter: Meter, variant: string | null, field: string) => PriceLine
  findLine: (meter: Meter, variant?: string | null) => PriceLine | undefined
  /** A quantity at a line, in the pool of rows that share its tiers and free units. */
  charge: (label: string, line: PriceLine, quantity: Working) => Working
  /** The same, with a pool of its own: for one of several months that differ. */
  apart: () => Builder
  refuse: (field: string, reason: string, instead?: Refusal['instead']) => never
  /** The other rows of the card: the month's cost before the organisation's own charges. Zero but for kinds priced last. */
  rest: Working
}

/** One kind of thing that can be priced. The sheet, the opened row, checks, search, JSON and documentation are driven from this object. */
export type ComponentKind = {
  kind: string
  label: string
  /** Plain words by which it is found. */
  words: readonly string[]
  fields: readonly Field[]
  /** Meters without which a card does not offer it; none for what needs no card. */
  needs: readonly Meter[]
  /** Priced after all others, on what they cost. */
  last?: true
  /** No price of a provider's: no negotiated discount, and no support plan's share. */
  outside?: true
  price: (builder: Builder) => Charges
}

/** The Zod schema of a kind's inputs on a rate card, made from its fields. */
export function inputSchema({ fields }: ComponentKind, card: RateCard, region: string) {
  return z.object(Object.fromEntries(fields.map(field => [field.name, z.string().superRefine((value, context) => {
    const message = fieldProblem(field, value, card, region)
    if (message) context.addIssue({ code: 'custom', message })
  }).describe(field.help)])))
}

/** What a new component of the kind begins with. */
export function usualInputs({ fields }: ComponentKind, card: RateCard, region: string): Inputs {
  return Object.fromEntries(fields.map(field => [field.name, usualValue(field, card, region)]))
}

/** The inputs as they are read: what is missing is as usual. */
export function completeInputs(kind: ComponentKind, inputs: Record<string, string>, card: RateCard, region: string): Inputs {
  return Object.fromEntries(kind.fields.map(field => [field.name, inputs[field.name] ?? usualValue(field, card, region)]))
}

/**
 * @param id of the row, for the references of its inputs.
 * @param pool is added to by every charge at a line that rows share.
 */
export function makeBuilder(id: string, kind: ComponentKind, inputs: Inputs, place: Place, settings: PriceSettings, pool: Pool, rest: Working): Builder {
  const fieldOf = (name: string) => kind.fields.find(field => field.name === name)!
  const typed = (name: string) => readNumber(inputs[name]!)!
  const refuse: Builder['refuse'] = (field, reason, instead) => {
    throw new NotPriced({ field, reason, ...(instead && { instead }) })
  }
  return {
    ...place, ...settings, typed, refuse, rest,
    apart: () => makeBuilder(id, kind, inputs, place, settings, new Map(), rest),
    number: (name) => {
      const field = fieldOf(name)
      return { ...input(field.label, typed(name).likely, field.unit), ref: `${id}.${name}` }
    },
    hours: (name = 'hoursPerMonth') => hoursWorking(readHours(inputs[name]!)!, settings.monthHours, `${id}.${name}`),
    text: name => inputs[name]!,
    findLine: (meter, variant = null) => findPrice(place.card, meter, place.region, variant),
    line: (meter, variant, field) => findPrice(place.card, meter, place.region, variant) ?? refuse(field, `${place.card.provider} has no price for ${variant ?? kind.label.toLowerCase()} in ${place.region}`),
    charge: (label, line, quantity) => {
      if (!isPooled(line)) return leastCharge(priceQuantity(label, line, quantity), line)
      const key = `${place.card.provider}\n${line.sku}`
      const before = pool.get(key) ?? alone.before
      const priced = priceQuantity(label, line, quantity, { before, allowance: allowanceOf(line, settings.useFreeAllowance) })
      pool.set(key, before === alone.before ? priced.parts[0] : add('drawn before', [before, priced.parts[0]], line.unit))
      return leastCharge(priced, line)
    },
  }
}

function leastCharge(priced: Working, line: PriceLine): Working {
  if (line.minimumCharge === undefined) return priced
  return { op: 'larger', label: `${priced.label}, at least the least charge`, parts: [priced, input('least charge a month', line.minimumCharge, undefined, line.sku)] }
}

/** Count times something, named. */
export const times = (label: string, ...parts: Working[]): Working => multiply(label, parts)
export const none: Working = input('none', zero)
export type { Meter, PriceLine, RateCard, Working }
