import { findKind } from '../../../core/estimate/components'
import type { ChoiceField, Field } from '../../../core/estimate/components/field'
import { applies, type Place } from '../../../core/estimate/components/kind'
import type { Component } from '../../../core/estimate/estimate'
import { findPlace, placeText } from '../../../core/estimate/pricing/place'
import { upliftsOfRow } from '../../../core/estimate/pricing/plan-row'
import { figureText, priceAlone } from '../../../core/estimate/pricing/price-estimate'
import { whereField, type InputColumn } from '../../../core/estimate/sheet/columns'
import { roundText } from '../../../core/money/amount-text'
import { describeLine } from '../../../core/ratecard/describe'
import { findPrice, findSize, findSku } from '../../../core/ratecard/find-price'
import { unitWords } from '../../../core/ratecard/meters'
import type { useEstimate } from '../../stores/estimate'
import { money } from '../../../shared/words/amounts'
import { fullPrice } from '../../utils/format'
import { shownInput } from '../../utils/inputs'

/** One of the values that a choice can have, with what it is and costs. */
export type CellOption = { value: string; label: string; note?: string }
/** Options of a size, by which they are found by what they are. */
export type SizesOf = { place: Place; meter: string } | null

/** What stands in the cells of inputs, and what may. */
export function sheetCells(store: ReturnType<typeof useEstimate>, columns: () => readonly InputColumn[]) {
  const rowOf = (component: string) => store.priced!.byId.get(component)

  /** The field in a column of a row; undefined where it has none there. */
  function fieldAt(component: Component, column: number): Field | undefined {
    const key = columns()[column]?.key
    if (key === 'where') return whereField
    const field = findKind(component.kind)?.fields.find(one => one.column === key)
    const row = rowOf(component.id)
    return field && row?.place && !applies(field, row.inputs, row.place) ? undefined : field
  }
  const value = (component: Component, field: Field) => rowOf(component.id)?.inputs[field.name] ?? component.inputs[field.name] ?? ''

  function cellText(component: Component, field: Field): string {
    const text = value(component, field)
    if (field.name === 'where') return findPlace(text, store.estimate!, store.cards)?.region ?? text
    if (field.name !== 'sku') return shownInput(field, text)
    const card = rowOf(component.id)?.place?.card
    const line = card && findSku(card, text)
    return line ? describeLine(line, card) : text
  }

  /** Options of a choice where the row stands. */
  function options(component: Component, field: Field): CellOption[] {
    const estimate = store.estimate!
    if (field.name === 'where')
      return [...store.cards.values()].flatMap(({ provider, regions }) =>
        regions.map(({ id }) => ({
          value: placeText(provider, id, estimate),
          label: provider === estimate.provider ? id : `${id}, ${provider}`,
        })),
      )
    const place = rowOf(component.id)?.place
    if (field.type !== 'choice' || !place) return []
    return field.options(place.card, place.region).map(option => optionOf(component, field, place, option))
  }

  /** An option with its price where it stands for a line of the rate card, and the organisation's uplifts on it. */
  function optionOf(component: Component, field: ChoiceField, { card, region }: Place, option: string): CellOption {
    const line = field.name === 'sku' ? findSku(card, option) : field.meter && findPrice(card, field.meter, region, option)
    if (!line) return { value: option, label: option }
    const size = findSize(card, option)
    const facts = size ? [`${size.vcpu} vCPU`, `${size.memoryGb} GB`, ...(size.architecture ? [size.architecture] : [])] : []
    const price = `${fullPrice(line.tiers[0]!.price)} ${card.currency} per ${unitWords(line.unit)}`
    return {
      value: option,
      label: field.name === 'sku' ? describeLine(line, card) : option,
      note: [...facts, price, ...withUplifts(component, field, option)].join(' · '),
    }
  }

  /** What the row costs a month with the option, where uplifts come on top: their names alone say no price. */
  function withUplifts(component: Component, field: ChoiceField, option: string): string[] {
    const kind = findKind(component.kind)!
    const inputs = { ...rowOf(component.id)?.inputs, [field.name]: option }
    if (!upliftsOfRow(store.uplifts, kind, inputs, component.pattern, store.estimate!).length) return []
    const { chosen } = priceAlone(store.estimate!, store.prices, component, { [field.name]: option })
    if (!chosen) return []
    const monthly = money(roundText(figureText(chosen.effectiveMonthly)), store.currency)
    return [`${monthly} ${store.currency} a month for the row with uplifts`]
  }

  /** Sizes are found by what they are. */
  function sizesOf(component: Component, field: Field): SizesOf {
    const place = rowOf(component.id)?.place
    if (!place || field.type !== 'choice' || !field.meter) return null
    return field.options(place.card, place.region).some(option => findSize(place.card, option)) ? { place, meter: field.meter } : null
  }

  return { rowOf, fieldAt, value, cellText, options, sizesOf }
}
