import type { Meter, PriceLine, RateCard } from '../../ratecard/rate-card'

/** A field's place in the sheet; a field without one shows in the opened row only. */
export type SheetColumn = 'where' | 'size' | 'amount' | 'runs' | 'count' | 'pays'

/** Inputs of a row by the name of their field, as they are stored. */
export type Inputs = Record<string, string>
/** What a field begins with: a text, or made from the card and the inputs before it. */
type Usual = string | ((card: RateCard, region: string, inputs: Inputs) => string)

type Common = {
  name: string
  label: string
  unit?: string
  help: string
  column?: SheetColumn
  /** Follows other inputs until someone types it: it is not stored as it begins. */
  follows?: true
  /** Whether it counts under the other inputs; always, when it is not said. */
  applies?: (inputs: Inputs, card: RateCard, region: string) => boolean
}

/** One input of a component kind, with its unit, limits and help. Sheet, form, checks, JSON Schema and documentation are made from it. */
export type Field = NumberField | HoursField | ChoiceField | TextField
/** A number; unless `fixed`, a person may give it as low, likely and high; an optional one may be empty. */
export type NumberField = Common & {
  type: 'number'
  min: number
  max: number
  whole?: boolean
  fixed?: boolean
  optional?: true
  usual: Usual
}
/** Hours a month, a share of the month, or a weekly schedule. */
export type HoursField = Common & { type: 'hours'; usual: string }
/**
 * What a choice means on a rate card: a variant of a meter, and how a line of it is chosen; null for a word that is the same on every card.
 */
export type Means = { meter: string; variant: string | null; option: (line: PriceLine) => string }
/**
 * A choice. With `meter` the options are the variants that the card has of one. `means` says what a value stands for on a card: by it the
 * same is found at another place.
 */
export type ChoiceField = Common & {
  type: 'choice'
  meter?: Meter
  means?: (value: string, card: RateCard, region: string) => Means | null
  options: (card: RateCard, region: string) => string[]
  usual: (card: RateCard, region: string, inputs: Inputs) => string
}
/** Words; `own` ones are of one's own people and never go into a customer's copy. */
export type TextField = Common & { type: 'text'; maxLength: number; usual: string; own?: true }
