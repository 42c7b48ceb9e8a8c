import type { Working } from '../../working/working'
import type { Estimate } from '../estimate'
import type { PricedEstimate } from '../pricing/priced'
import { figureOf, figureWords, type FigureName } from '../pricing/price-estimate'
import { rowInPart } from './row-name'

export type RowFigure = FigureName | 'breakEvenHours'
/**
 * An amount whose Workings are asked for: of a row (and one of its ways to pay), of a part, of a step from cost to total, or of the total.
 */
export type Explained =
  | { of: 'row'; component: string; way: string | null; figure: RowFigure }
  | { of: 'part'; part: string; figure: FigureName }
  | { of: 'step'; index: number; figure: FigureName }
  | { of: 'total'; figure: FigureName }

/** The Workings of an amount, as it is now; null when what was asked about is not there any more. `unit` is a currency, or hours. */
export function explainedWorkings(
  asked: Explained,
  estimate: Pick<Estimate, 'components'>,
  priced: PricedEstimate,
): { title: string; working: Working; unit: string } | null {
  const { currency: unit, termYears } = priced
  if (asked.of === 'total') return { title: `Total, ${figureWords[asked.figure]}`, working: priced.total[asked.figure], unit }
  if (asked.of === 'step') {
    const step = priced.steps[asked.index]
    return step ? { title: `${step.label}, ${figureWords[asked.figure]}`, working: step.figures[asked.figure], unit } : null
  }
  const named = new Map(estimate.components.map(row => [row.id, row]))
  if (asked.of === 'part') {
    const label = asked.part || 'rows'
    const rows = priced.rows.filter(row => priced.counted.has(row.id) && named.get(row.id)?.part === asked.part)
    const parts = rows.map(row => figureOf(row.chosen!, asked.figure, termYears))
    return { title: `${label}, ${figureWords[asked.figure]}`, working: { op: 'sum', label, parts }, unit }
  }
  const row = priced.byId.get(asked.component)
  const way = asked.way === null ? row?.chosen : row?.ways.find(one => [one.way, one.commits].filter(Boolean).join(', ') === asked.way)
  if (!row || !way) return null
  const known = named.get(row.id)
  const title = (figure: string) => `${known ? rowInPart(known) : row.kind?.label}, ${way.way}, ${figure}`
  if (asked.figure === 'breakEvenHours')
    return way.breakEvenHours && { title: title('break-even hours'), working: way.breakEvenHours, unit: 'h' }
  const working = asked.way === null ? figureOf(way, asked.figure, termYears) : way[asked.figure]
  return working && { title: title(figureWords[asked.figure]), working, unit }
}
