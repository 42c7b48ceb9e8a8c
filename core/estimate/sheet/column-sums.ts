import { addTexts } from '../../money/amount-text'
import { decimalText, type DecimalText } from '../../money/decimal'
import { evaluate, type Working } from '../../working/working'
import type { Component } from '../estimate'
import type { PricedEstimate } from '../pricing/priced'
import { figureOf } from '../pricing/ways-to-pay'
import type { Comparison, Difference } from '../scenarios/compare'
import type { FigureColumn } from './columns'

/** What the columns of a sheet tell: each scenario priced, the first as it stands, and how each differs from the first, by its id. */
export type SheetPrices = { priced: readonly PricedEstimate[]; differences: ReadonlyMap<string, Comparison> }

/** A row's figure in a column as Workings; null where it has none. */
export function rowFigure(id: string, { at, figure }: FigureColumn, { priced }: Pick<SheetPrices, 'priced'>): Working | null {
  const column = priced[at]!
  const chosen = column.byId.get(id)?.chosen
  return chosen ? figureOf(chosen, figure, column.termYears) : null
}

/** Comparison of a column with the first; undefined for the first. */
const compared = ({ at }: FigureColumn, { priced, differences }: SheetPrices) => differences.get(priced[at]!.scenario ?? '')

/** How a row differs from the first column's; null where one of the two cannot price it: it is not compared. */
export function rowDifference(id: string, column: FigureColumn, prices: SheetPrices): DecimalText | null {
  return compared(column, prices)?.rows.get(id)?.amount ?? null
}

/** Sums of each part of the workload in each column: of the rows that are counted there; of a difference, of the rows that are compared. */
export function partSums(
  components: readonly Component[],
  columns: readonly FigureColumn[],
  prices: SheetPrices,
): Map<string, DecimalText[]> {
  const byPart = new Map<string, Component[]>()
  for (const row of components) {
    const known = byPart.get(row.part)
    if (known) known.push(row)
    else byPart.set(row.part, [row])
  }
  const amount = (column: FigureColumn, id: string): DecimalText => {
    if (column.difference) return rowDifference(id, column, prices) ?? '0'
    return prices.priced[column.at]!.counted.has(id) ? decimalText(evaluate(rowFigure(id, column, prices)!)) : '0'
  }
  return new Map([...byPart].map(([part, rows]) => [part, columns.map(column => addTexts(rows.map(({ id }) => amount(column, id))))]))
}

/** What a column comes to; of a difference, like for like and with its share of the first. */
export function columnTotal(column: FigureColumn, prices: SheetPrices): Difference {
  if (column.difference) return compared(column, prices)?.total ?? { amount: '0', share: null }
  return { amount: decimalText(evaluate(prices.priced[column.at]!.total[column.figure])), share: null }
}
