import { zero, type DecimalText } from '../../money/decimal'
import type { Meter } from '../../ratecard/meters'
import { findPrice, linesOf } from '../../ratecard/find-price'
import type { PriceLine, RateCard } from '../../ratecard/rate-card'
import { input, multiply, type Working } from '../../working/working'
import { hoursWorking, readHours } from '../sheet/hours-text'
import { readNumber, type TypedNumber } from '../sheet/number-text'
import { storedText } from '../sheet/typed-text'
import { usualValue, type Field, type Inputs } from './field'

export type { Inputs } from './field'

/** Why something cannot be priced: the field it lies at, and what to do. `give` names a currency whose rate is missing. */
export type Refusal = { field: string; reason: string; instead?: { value: string; label: string }; give?: { rate: string; to: string } }

/** Ends the pricing of one row; caught where rows are priced. */
export class NotPriced extends Error {
  constructor(readonly refusal: Refusal) {
    super(refusal.reason)
  }
}

/** A quantity of a rate card line that a row draws in a month. What it costs is known when all rows have said what they draw. */
export type Charge = { label: string; line: PriceLine; quantity: Working }
/** What a month costs: quantities of rate card lines, and amounts that no line has. */
export type Recurring = Charge | Working
export const isCharge = (one: Recurring): one is Charge => 'line' in one

/** So many of what runs are committed to; `beyond` are the unit hours that stay on-demand beside them. */
export type CommitPart = { running: number; count: Working; beyond: Working | null }
/** How many one could commit to. `value` is that of the kind's field `commitTo`; null where a kind has no such choice. */
export type CommitChoice = { value: string | null; label: string; parts: CommitPart[] }

/** What a component is made of, before any way to pay: how it is charged in a month. */
export type Charges = {
  /** What the month costs as it runs, whatever way one pays for what runs. */
  recurring: Recurring[]
  /** What is charged per hour it runs and may be committed to: unit hours of a line. Not in `recurring`. */
  running?: Charge[]
  commitChoices?: CommitChoice[]
  /** Paid once, when it begins. */
  once?: Working[]
  /** Where months differ: each of them. `recurring` is then what comes on top in every month. */
  months?: Recurring[][]
  unitPrice: { value: DecimalText; per: string } | null
  /** How many of it there are, and the unit hours of all of them (base and peak): what an organisation's uplifts multiply. */
  count?: Working
  unitHours?: Working
  /** Quantities that uplifts may be for; `hours` is the quantity times the hours it is there, where that is not all of the month. */
  amounts?: { unit: string; quantity: Working; hours?: Working }[]
  /** What its cost is worth knowing for each of, such as a user. */
  each?: { label: string; count: Working }
  /** A sentence worth knowing before one believes the price. */
  notices?: string[]
  /** Figures that are not money, such as machines needed. */
  facts?: { label: string; working: Working; unit?: string }[]
}

/** Where a row is priced. */
export type Place = { card: RateCard; region: string }
export type PriceSettings = {
  /** 730, or the real hours of a named month when what ran is priced again. */
  monthHours: number
}

/** What a kind's pricing works with: its inputs as Workings and the card's lines at its place. */
export type Builder = Place &
  PriceSettings & {
    /** The typed number as Workings: a range counts with its likely value. */
    number: (name: string) => Working
    /** The typed number itself, for what only decides on structure (a number of months, whether something is wanted). */
    typed: (name: string) => TypedNumber
    hours: (name?: string) => Working
    /** All hours of the month. */
    allHours: () => Working
    /** A choice or text. */
    text: (name: string) => string
    /** The card's line here. @throws NotPriced when it has none. */
    line: (meter: Meter, variant: string | null, field: string) => PriceLine
    findLine: (meter: Meter, variant?: string | null) => PriceLine | undefined
    charge: (label: string, line: PriceLine, quantity: Working) => Charge
    refuse: (field: string, reason: string, instead?: Refusal['instead']) => never
    /** The other rows of the card: the month's cost before the organisation's uplifts. Zero but for kinds priced last. */
    rest: Working
  }

/** One kind of thing that can be priced. The sheet, the opened row, checks, search, JSON and documentation are driven from this object. */
export type ComponentKind = {
  kind: string
  label: string
  /** Plain words by which it is found, the trade's among them. */
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

/** Whether a row of the kind stands at a place at all: what has no rate card's price does not move with the others. */
export const hasPlace = (kind: ComponentKind): boolean => kind.needs.length > 0 || !kind.outside

/** What a new component of the kind begins with; what follows other inputs is not stored. */
export function usualInputs(kind: ComponentKind, card: RateCard, region: string, given: Inputs = {}): Inputs {
  const complete = completeInputs(kind, given, card, region)
  return Object.fromEntries(
    kind.fields.filter(field => !field.follows || given[field.name] !== undefined).map(field => [field.name, complete[field.name]!]),
  )
}

/** The inputs as they are read: what is missing is as usual, what someone wrote in words is as it is stored. */
export function completeInputs(kind: ComponentKind, inputs: Inputs, card: RateCard, region: string): Inputs {
  const complete: Inputs = {}
  for (const field of kind.fields) {
    const given = Object.hasOwn(inputs, field.name) ? inputs[field.name] : undefined
    complete[field.name] = given === undefined ? usualValue(field, card, region, complete) : storedText(field, given)
  }
  return complete
}

/** Whether a field counts under the inputs of its row. */
export const applies = (field: Field, inputs: Inputs, { card, region }: Place): boolean => field.applies?.(inputs, card, region) ?? true

/**
 * The line of a meter and variant; where the card has only one line of the meter and it names no variant, or the only one asked for, that
 * one.
 */
export function lineAt({ card, region }: Place, meter: string, variant: string | null): PriceLine | undefined {
  const exact = findPrice(card, meter, region, variant)
  if (exact) return exact
  const [only, ...others] = linesOf(card, meter, region)
  return only && !others.length && (only.variant === null || variant === null) ? only : undefined
}

/** @param id of the row, for the references of its inputs. */
export function makeBuilder(
  id: string,
  kind: ComponentKind,
  inputs: Inputs,
  place: Place,
  settings: PriceSettings,
  rest: Working,
): Builder {
  const fieldOf = (name: string) => kind.fields.find(field => field.name === name)!
  const typed = (name: string) => readNumber(inputs[name]!) ?? { low: zero, likely: zero, high: zero, isRange: false }
  const refuse: Builder['refuse'] = (field, reason, instead) => {
    throw new NotPriced({ field, reason, ...(instead && { instead }) })
  }
  return {
    card: place.card,
    region: place.region,
    monthHours: settings.monthHours,
    typed,
    refuse,
    rest,
    number: name => {
      const field = fieldOf(name)
      return { ...input(field.label, typed(name).likely, field.unit), ref: `${id}.${name}` }
    },
    hours: (name = 'hoursPerMonth') => hoursWorking(readHours(inputs[name]!)!, settings.monthHours, `${id}.${name}`),
    allHours: () => input('hours of the month', settings.monthHours, 'h'),
    text: name => inputs[name]!,
    findLine: (meter, variant = null) => lineAt(place, meter, variant),
    line: (meter, variant, field) =>
      lineAt(place, meter, variant) ??
      refuse(field, `${place.card.provider} has no price for ${variant ?? kind.label.toLowerCase()} in ${place.region}`),
    charge: (label, line, quantity) => ({ label, line, quantity }),
  }
}

/** Count times something, named. */
export const times = (label: string, ...parts: Working[]): Working => multiply(label, parts)
export const none: Working = input('none', zero)
export type { Meter, PriceLine, RateCard, Working }
