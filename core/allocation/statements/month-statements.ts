import { scaled, scaledText } from '../../money/scaled'
import type { CostMeasure } from '../../spend/question'
import type { Adjustment, AdjustmentLine } from '../closing/adjustments'
import type { CostCentre } from '../plan'
import type { Settlement } from '../settle'
import type { StatementLine } from '../statement'
import { treeOrder } from '../tree'

/** A cost centre's month in one currency: the bill's part, what months closed before are adjusted by, and what it bears in all. */
export type CentreStatement = {
  centre: CostCentre
  currency: string
  lines: StatementLine[]
  /** Its part of the bill. */
  total: string
  adjustments: Adjustment[]
  /** With adjustments. */
  toBear: string
}

/** What lies on no cost centre, in one currency. */
export type OnNone = { currency: string; total: string; adjustments: Adjustment[]; toBear: string }

/** The statements of a month with all that is to be known of them. */
export type MonthStatements = {
  month: string
  measure: CostMeasure
  /** When it was closed, by whom, under which version of the rules; null for a draft. */
  closed: { who: string; closedAt: string; version: number } | null
  statements: CentreStatement[]
  /** Nothing of it where only a part of the company is seen. */
  unallocated: OnNone[]
}

type Settled = Pick<Settlement, 'statements' | 'unallocated'> & { adjustments: Adjustment[]; closed: MonthStatements['closed'] }

/**
 * The statements of a settled month, in the order of the tree. Their sum with what is unallocated is the bill and the adjustments.
 * @param centres of the plan that it was settled by; one that is adjusted and no longer there stands under its id.
 */
export function monthStatements(
  { month, measure }: Pick<MonthStatements, 'month' | 'measure'>,
  { statements, unallocated, adjustments, closed }: Settled,
  centres: readonly CostCentre[],
): MonthStatements {
  const known = treeOrder(centres).map(({ depth: _, ...centre }): CostCentre => centre)
  const ids = new Set(known.map(({ id }) => id))
  const gone = new Set([...statements, ...adjustments].flatMap(({ centre }) => (centre === null || ids.has(centre) ? [] : [centre])))
  const all = [...known, ...[...gone].sort().map((id): CostCentre => ({ id, name: id, parent: null, owner: null }))]
  const of = <T extends { centre: string | null; currency: string }>(list: readonly T[], centre: string | null, currency: string) =>
    list.filter(one => one.centre === centre && one.currency === currency)
  const sum = (texts: readonly string[]) => scaledText(texts.reduce((total, text) => total + scaled(text), 0n))
  const made = all.flatMap(centre => {
    const own = [...statements, ...adjustments].filter(one => one.centre === centre.id)
    return [...new Set(own.map(({ currency }) => currency))].sort().map((currency): CentreStatement => {
      const lines = of(statements, centre.id, currency).flatMap(one => one.lines)
      const adjusted = of(adjustments, centre.id, currency)
      const total = sum(lines.map(({ amount }) => amount))
      return { centre, currency, lines, total, adjustments: adjusted, toBear: sum([total, ...adjusted.map(({ amount }) => amount)]) }
    })
  })
  const nobody = [...new Set([...unallocated, ...adjustments.filter(one => one.centre === null)].map(({ currency }) => currency))].sort()
  return {
    ...{ month, measure, closed, statements: made },
    unallocated: nobody.map(currency => {
      const total = sum(unallocated.filter(one => one.currency === currency).map(({ amount }) => amount))
      const adjusted = of(adjustments, null, currency)
      return { currency, total, adjustments: adjusted, toBear: sum([total, ...adjusted.map(({ amount }) => amount)]) }
    }),
  }
}

/** A line of an adjustment in words. */
export const adjustmentWords = (line: AdjustmentLine): string =>
  line.kind === 'direct' ? (line.service ?? 'no service') : line.kind === 'share' ? `share of ${line.pool}` : 'unallocated'
export const causeWords: Record<Adjustment['cause'], string> = { charges: 'late or corrected charges', rules: 'changed rules' }
