import { decimalText, type DecimalText } from '../../money/decimal'
import { evaluate, type Working } from '../../working/working'

export const figureNames = ['upfront', 'monthly', 'effectiveMonthly', 'firstYear', 'wholeTerm'] as const
export type FigureName = (typeof figureNames)[number]
export type Figures = Record<FigureName, Working>

export const figureWords: Record<FigureName, string> = {
  upfront: 'upfront',
  monthly: 'monthly',
  effectiveMonthly: 'effective monthly',
  firstYear: 'first 12 months',
  wholeTerm: 'whole term',
}

/** A figure as exact text. */
export const figureText = (working: Working): DecimalText => decimalText(evaluate(working))

/** Figures made one by one. */
export const figuresOf = <T>(of: (name: FigureName) => T): Record<FigureName, T> =>
  Object.fromEntries(figureNames.map(name => [name, of(name)])) as Record<FigureName, T>
