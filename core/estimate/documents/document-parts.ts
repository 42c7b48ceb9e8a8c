import { decimalText } from '../../money/decimal'
import { describeLine } from '../../ratecard/describe'
import { findSku } from '../../ratecard/find-price'
import { evaluate, type Working } from '../../working/working'
import type { Field } from '../components/field'
import { applies } from '../components/kind'
import type { Component, Estimate } from '../estimate'
import { figuresOf } from '../pricing/figures'
import { inputText } from '../sheet/input-text'
import { currencyOf, type FigureName, type PricedComponent, type Prices } from '../pricing/price-estimate'
import type { PricedEstimate } from '../pricing/priced'
import { rateOf } from '../pricing/rates'
import { notCounted } from '../scenarios/compare'
import { sumOfRows } from '../pricing/totals'
import type { FigureTexts, DocumentLacks, EstimateDocument, DocumentRow } from './document-types'

/** What a row is, in words: its inputs, those that a person has set first. */
export function rowDetails(component: Component, row: PricedComponent, isForCustomer = false): string {
  if (!row.kind) return ''
  // an amount that someone typed is own cost, and words for one's own people stay with them
  const mayShow = (field: Field) =>
    !isForCustomer || (!(row.kind!.outside && field.type === 'number') && !(field.type === 'text' && field.own))
  return row.kind.fields
    .filter(
      field =>
        mayShow(field) &&
        field.name !== 'pays' &&
        row.inputs[field.name] !== '' &&
        (field.column || component.confirmed.includes(field.name)) &&
        (!row.place || applies(field, row.inputs, row.place)),
    )
    .map(field => {
      const value = row.inputs[field.name]!
      if (field.name === 'sku' && row.place) {
        const line = findSku(row.place.card, value)
        return line ? describeLine(line, row.place.card) : value
      }
      // sizes, classes and systems name themselves; other choices are a bare word or number
      return field.column === 'size' || field.type === 'text' || (field.type === 'choice' && /\p{L}{4}/u.test(value))
        ? value
        : `${field.label} ${inputText(field, value)}`
    })
    .join(' · ')
}

/** All figures as texts. */
export const texts = (of: (name: FigureName) => Working): FigureTexts => figuresOf(name => decimalText(evaluate(of(name))))

/** What is made when it is asked for first. */
export function once<T>(make: () => T): () => T {
  let made: { value: T } | null = null
  return () => (made ??= { value: make() }).value
}

/** An input as it can be typed. */
export const shown = (row: PricedComponent | undefined, name: string, value: string): string => {
  const field = row?.kind?.fields.find(f => f.name === name)
  return field ? inputText(field, value) : value
}
/** In words how a row is paid. */
export const wayOf = ({ ways, chosen }: PricedComponent): string =>
  ways.length > 1 && chosen ? [chosen.way, chosen.commits && `for the ${chosen.commits}`].filter(Boolean).join(', ') : ''
/** What a column lacks of the rows that stand. */
export const lacksOf = (column: PricedEstimate, base: PricedEstimate): DocumentLacks | null => notCounted(column, base)

/** Where a column is priced, in words. */
export function placeOf(estimate: Estimate, { change }: PricedEstimate, withProvider: boolean): string {
  const where = change?.whole.where
  const slash = where?.lastIndexOf('/') ?? -1
  const [provider, region] = slash > 0 ? [where!.slice(0, slash), where!.slice(slash + 1)] : [estimate.provider, where || estimate.region]
  return withProvider ? `${region}, ${provider}` : region
}

/** Rates that some row or uplift is converted at. */
export function ratesUsed(estimate: Estimate, prices: Prices): EstimateDocument['rates'] {
  const to = currencyOf(estimate, prices)
  const foreign = new Set(
    [...prices.cards.values()]
      .filter(card => estimate.cards.some(c => c.provider === card.provider))
      .map(card => card.currency)
      .concat(prices.uplifts.map(set => set.currency))
      .filter(from => from !== to),
  )
  return [...foreign].flatMap(from => {
    const rate = rateOf(estimate, prices.rates, from, to)
    return rate ? [{ from, to, rate: rate.rate, day: rate.day }] : []
  })
}

/** The parts with the sums of their rows. */
export function partsOf(estimate: Estimate, chosen: PricedEstimate, rows: DocumentRow[]): EstimateDocument['parts'] {
  return [...new Set(estimate.components.map(c => c.part))].map(name => {
    const own = new Set(estimate.components.filter(c => c.part === name).map(c => c.id))
    const counted = chosen.rows.filter(row => own.has(row.id) && chosen.counted.has(row.id))
    return { name, rows: rows.filter(row => own.has(row.id)), figures: figuresOf(figure => sumOfRows(counted, figure, chosen.termYears)) }
  })
}
