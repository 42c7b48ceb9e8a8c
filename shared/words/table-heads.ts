import type { Measure } from '../../core/spend/question'
import type { TableColumn, TableHead } from '../../core/spend/table'
import { dimensionLabel } from './dimensions'

export const measureNames: Record<Measure, string> = {
  effectiveCost: 'effective cost',
  billedCost: 'billed cost',
  listCost: 'list cost',
  contractedCost: 'contracted cost',
  savedAgainstList: 'saved against list',
  pricingQuantity: 'quantity',
  consumedQuantity: 'consumed quantity',
  unitPrice: 'effective unit price',
}
/** A measure as a column is headed. */
export const shortMeasure: Record<Measure, string> = {
  effectiveCost: 'effective',
  billedCost: 'billed',
  listCost: 'list',
  contractedCost: 'contracted',
  savedAgainstList: 'saved',
  pricingQuantity: 'quantity',
  consumedQuantity: 'consumed',
  unitPrice: 'unit price',
}
export const columnNames: Record<TableColumn, string> = {
  share: 'share',
  perDay: 'a day',
  before: 'before',
  difference: 'difference',
  changeShare: 'change',
}

/** How a column of a table is headed in a file: as on the screen, an amount with its currency. */
export function fileHead(head: TableHead, measure: Measure, currency: string): string {
  if (head.value !== undefined) return head.value ?? 'none'
  if (head.column === 'amount') return `${shortMeasure[measure]}, ${currency}`
  if (head.column && head.column !== 'rest') return columnNames[head.column]
  return dimensionLabel(head.id)
}
