import { scaled, scaledText } from '../../money/scaled'
import type { CostMeasure } from '../../spend/question'
import type { Adjustment, AdjustmentLine } from '../closing/adjustments'
import type { CostCentre } from '../plan'
import type { Settlement } from '../settle'
import type { StatementLine } from '../statement'
import { treeOrder } from '../tree'
import type { UpliftLine } from '../uplift-lines'

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
  /** The organisation's uplifts on what ran: beside all of the above, in none of it. */
  uplifts: UpliftLine[]
  /** Its part of the bill of the month before; null where that is not known. */
  before: string | null
  /** What one of its business measures costs, on it and all below it; with its first currency. */
  unitCosts: StatementUnitCost[]
}

/** What one of a business measure costs in the month and in the one before; null where that is not defined. */
export type StatementUnitCost = {
  measure: string
  unit: string
  currency: string
  quantity: string | null
  unitCost: string | null
  before: string | null
}

/** What statements are for: cost centres are told what they cost, or it is posted to them; null where nobody had said. */
export const statementPurposes = ['showback', 'chargeback'] as const
export type StatementPurpose = (typeof statementPurposes)[number]

/** What stands beside the statements. */
export type BesideStatements = {
  /** The last day with charges, where the month is not over. */
  to: string | null
  before: { month: string; totals: readonly { centre: string; currency: string; total: string }[] } | null
  unitCosts: readonly (StatementUnitCost & { centre: string })[]
}

/** What lies on no cost centre, in one currency. */
export type OnNone = { currency: string; total: string; adjustments: Adjustment[]; toBear: string; uplifts: UpliftLine[] }

/** The statements of a month with all that is to be known of them. */
export type MonthStatements = {
  month: string
  measure: CostMeasure
  /** When it was closed, by whom, under which version of the rules, for what; null for a draft. */
  closed: { who: string; closedAt: string; version: number; purpose?: StatementPurpose | null } | null
  /** The month that it stands beside; null where nothing of that is loaded. */
  monthBefore: string | null
  /** The last day with charges, where the month is not over: then it is not compared. */
  to: string | null
  statements: CentreStatement[]
  /** Nothing of it where only a part of the company is seen. */
  unallocated: OnNone[]
}

type Settled = Pick<Settlement, 'statements' | 'unallocated' | 'uplifts'> & { adjustments: Adjustment[]; closed: MonthStatements['closed'] }

/**
 * The statements of a settled month, in the order of the tree. Their sum with what is unallocated is the bill and the adjustments; uplifts
 * stand beside it.
 * @param centres of the plan that it was settled by; one that is adjusted and no longer there stands under its id.
 */
export function monthStatements(
  { month, measure }: Pick<MonthStatements, 'month' | 'measure'>,
  { statements, unallocated, uplifts, adjustments, closed }: Settled,
  centres: readonly CostCentre[],
  beside: BesideStatements = { to: null, before: null, unitCosts: [] },
): MonthStatements {
  const known = treeOrder(centres).map(({ depth: _, ...centre }): CostCentre => centre)
  const ids = new Set(known.map(({ id }) => id))
  const gone = new Set(
    [...statements, ...adjustments, ...uplifts].flatMap(({ centre }) => (centre === null || ids.has(centre) ? [] : [centre])),
  )
  const all = [...known, ...[...gone].sort().map((id): CostCentre => ({ id, name: id, parent: null, owner: null }))]
  const of = <T extends { centre: string | null; currency: string }>(list: readonly T[], centre: string | null, currency: string) =>
    list.filter(one => one.centre === centre && one.currency === currency)
  const sum = (texts: readonly string[]) => scaledText(texts.reduce((total, text) => total + scaled(text), 0n))
  const made = all.flatMap(centre => {
    const own = [...statements, ...adjustments, ...uplifts].filter(one => one.centre === centre.id)
    return [...new Set(own.map(({ currency }) => currency))].sort().map((currency, at): CentreStatement => {
      const lines = of(statements, centre.id, currency).flatMap(one => one.lines)
      const adjusted = of(adjustments, centre.id, currency)
      const total = sum(lines.map(({ amount }) => amount))
      const then = beside.before?.totals.find(one => one.centre === centre.id && one.currency === currency)
      return {
        ...{ centre, currency, lines, total, adjustments: adjusted, toBear: sum([total, ...adjusted.map(({ amount }) => amount)]) },
        uplifts: of(uplifts, centre.id, currency),
        before: beside.before ? (then?.total ?? '0') : null,
        unitCosts: at ? [] : beside.unitCosts.filter(one => one.centre === centre.id),
      }
    })
  })
  const onNone = [...unallocated, ...[...adjustments, ...uplifts].filter(one => one.centre === null)]
  const nobody = [...new Set(onNone.map(({ currency }) => currency))].sort()
  return {
    ...{ month, measure, closed, monthBefore: beside.before?.month ?? null, to: beside.to, statements: made },
    unallocated: nobody.map(currency => {
      const total = sum(unallocated.filter(one => one.currency === currency).map(({ amount }) => amount))
      const adjusted = of(adjustments, null, currency)
      const own = of(uplifts, null, currency)
      return { currency, total, adjustments: adjusted, toBear: sum([total, ...adjusted.map(({ amount }) => amount)]), uplifts: own }
    }),
  }
}

/** A line of an adjustment in words. */
export const adjustmentWords = (line: AdjustmentLine): string =>
  line.kind === 'direct' ? (line.service ?? 'no service') : line.kind === 'share' ? `share of ${line.pool}` : 'unallocated'
/** How an uplift came about: so many at a price each, a share of what they cost, or a part of what is on a pool. */
export const upliftWords = ({ times, pool }: Pick<UpliftLine, 'times' | 'pool'>): string =>
  times === null
    ? `its part of ${pool?.name ?? ''}`
    : times.unit === '%'
      ? `${times.price} % of ${times.quantity}`
      : `${times.quantity} ${times.unit === 'each' ? '' : `${times.unit} `}× ${times.price}`
export const causeWords: Record<Adjustment['cause'], string> = { charges: 'late or corrected charges', rules: 'changed rules' }
