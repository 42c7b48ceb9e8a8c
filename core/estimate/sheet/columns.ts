import { evaluate } from '../../working/working'
import type { Field, SheetColumn } from '../components/field'
import type { Estimate } from '../estimate'
import { figureWords, type FigureName } from '../pricing/price-estimate'
import type { PricedEstimate } from '../pricing/priced'

export type InputColumn = { key: SheetColumn | 'name'; label: string; number?: boolean }
/** A column of amounts: of the scenario in place `at`, or how it differs from the first. */
export type FigureColumn = { key: string; label: string; figure: FigureName; at: number; difference?: true; first?: boolean }

/** Where a row stands, as a field of the sheet: every kind has it. */
export const whereField: Field = {
  type: 'choice',
  name: 'where',
  label: 'where',
  column: 'where',
  help: 'Region, or region of another provider.',
  options: () => [],
  usual: () => '',
}

/** The columns of inputs; `where` only once something stands elsewhere. */
export function inputColumns({ components, scenarios }: Pick<Estimate, 'components' | 'scenarios'>): InputColumn[] {
  const isElsewhere =
    components.some(row => row.inputs.where) || scenarios.some(({ rows }) => Object.values(rows).some(row => row.where !== undefined))
  return [
    { key: 'name', label: 'component' },
    ...(isElsewhere ? [{ key: 'where' as const, label: 'where' }] : []),
    { key: 'size', label: 'size, class' },
    { key: 'amount', label: 'how much', number: true },
    { key: 'runs', label: 'runs', number: true },
    { key: 'count', label: 'count', number: true },
    { key: 'pays', label: 'payment' },
  ]
}

/**
 * The columns of amounts: all figures of the estimate alone; beside scenarios one figure of each, how it differs from the first, and what
 * is paid upfront where anything is.
 * @param compared the figure by which scenarios are compared.
 */
export function figureColumns(priced: readonly PricedEstimate[], compared: FigureName): FigureColumn[] {
  const [first, ...others] = priced as [PricedEstimate, ...PricedEstimate[]]
  if (!others.length) {
    const label = (figure: FigureName) =>
      figure === 'wholeTerm'
        ? `${first.termYears} ${first.termYears === 1 ? 'year' : 'years'}`
        : figure === 'firstYear'
          ? '12 months'
          : figureWords[figure]
    return (['upfront', 'monthly', 'effectiveMonthly', 'firstYear', 'wholeTerm'] as const).map(figure => ({
      ...{ key: figure, label: label(figure), figure, at: 0 },
    }))
  }
  const paysUpfront = !evaluate(first.total.upfront).eq(0) && compared !== 'upfront'
  const own = (at: number): FigureColumn => ({
    ...{ key: `${compared} ${at}`, label: figureWords[compared], figure: compared, at, first: true },
  })
  return [
    ...(paysUpfront ? [{ key: 'upfront', label: 'upfront', figure: 'upfront' as const, at: 0, first: true }] : []),
    own(0),
    ...others.flatMap((_, i): FigureColumn[] => [
      own(i + 1),
      { key: `${compared} ${i + 1} difference`, label: 'to A', figure: compared, at: i + 1, difference: true },
    ]),
  ]
}
