import { Decimal, decimalText, zero, type DecimalText } from '../../money/decimal'
import { add, divide, evaluate, input, multiply, subtract, type Working } from '../../working/working'
import { none } from '../components/kind'
import type { Estimate } from '../estimate'
import { creditStretches, creditUntil, type Stretch } from './credits'
import { figuresOf, figureWords, type FigureName, type Figures } from './figures'
import type { PricedComponent } from './price-row'
import { figureOf, type WayPrice } from './ways-to-pay'

/** What comes on top of the rows, in that order. */
export type Step = { label: string; kind: 'funding' | 'margin' | 'tax'; figures: Figures }

/** Makes a sum; the very tree that was made under the key before while its parts are the same. */
export type MakeSum = (key: string, label: string, parts: Working[]) => Working

/**
 * The effective month of a total: its whole term divided by the months of the term, so that both say the same. Where nothing is paid at
 * once and no month differs, that is the month itself.
 */
function effective(of: Pick<Figures, 'monthly' | 'wholeTerm'>, termYears: number, isEven: boolean): Working {
  return isEven ? of.monthly : divide('effective monthly', [of.wholeTerm, input('months of the term', 12 * termYears)])
}

/** Whether every month of a row costs the same and nothing is paid at once: effective and paid months are then one. */
const isEven = (way: WayPrice, termYears: number) => figureOf(way, 'effectiveMonthly', termYears) === way.monthly

/** The sums of rows by the parts of the workload: what changes in one part leaves the sums of the others as they are. */
export function sumRows(
  estimate: Estimate,
  rows: readonly PricedComponent[],
  termYears: number,
  key: string,
  sum: MakeSum,
): { cost: Figures; even: boolean } {
  const parts = new Map<string, WayPrice[]>()
  const partOf = new Map(estimate.components.map(c => [c.id, c.part]))
  for (const row of rows) {
    const part = partOf.get(row.id)!
    const list = parts.get(part)
    if (list) list.push(row.chosen!)
    else parts.set(part, [row.chosen!])
  }
  const even = rows.every(row => isEven(row.chosen!, termYears))
  const summed = figuresOf(name => {
    const sums = [...parts].map(([part, ways]) =>
      sum(
        `${key}\n${name}\n${part}`,
        part || 'rows',
        ways.map(way => figureOf(way, name, termYears)),
      ),
    )
    return sums.length === 1 ? sums[0]! : sum(`${key}\n${name}`, `all parts, ${figureWords[name]}`, sums)
  })
  return { cost: { ...summed, effectiveMonthly: effective(summed, termYears, even) }, even }
}

/** Credits, margin and tax on what the rows cost. @returns the steps, and the total with them. */
export function stepsOn(
  estimate: Pick<Estimate, 'funding' | 'marginPercent' | 'taxPercent'>,
  { cost, even }: { cost: Figures; even: boolean },
  termYears: number,
): { steps: Step[]; total: Figures } {
  const steps: Step[] = []
  let total = cost
  let isEvenStill = even
  const step = (label: string, kind: Step['kind'], of: (name: FigureName, working: Working) => Working) => {
    const added = figuresOf(name => (name === 'effectiveMonthly' ? none : of(name, total[name])))
    const figures = { ...added, effectiveMonthly: effective(added, termYears, isEvenStill) }
    const before = total
    steps.push({ label, kind, figures })
    const sums = figuresOf(name => (name === 'effectiveMonthly' ? none : add(`with ${label}`, [before[name], figures[name]])))
    total = { ...sums, effectiveMonthly: isEvenStill ? sums.monthly : effective(sums, termYears, false) }
  }
  const month = evaluate(cost.monthly)
  const termMonths = 12 * termYears
  const given: Stretch[] = []
  for (const credit of estimate.funding) {
    const { label, threshold, fromMonth, months } = credit
    if (month.lt(threshold) || fromMonth > termMonths) continue
    const stretches = creditStretches(credit, cost.monthly, given, termMonths)
    given.push(...stretches)
    const always = fromMonth === 1 && months >= termMonths
    // where all credits before are for every month, this one is cut nowhere
    isEvenStill &&= always
    const last = fromMonth + months - 1
    const named = months === 1 ? `month ${fromMonth}` : `months ${fromMonth} to ${last}`
    const until = { upfront: 0, monthly: 1, effectiveMonthly: 0, firstYear: 12, wholeTerm: termMonths }
    step(always ? label : `${label}, ${named}`, 'funding', name => creditUntil(label, stretches, until[name]))
  }
  const margin = new Decimal(estimate.marginPercent)
  if (margin.gt(0))
    step(`margin ${decimalText(margin)} %`, 'margin', (_, working) => subtract('margin', [customerPrice(working, margin), working]))
  const tax = new Decimal(estimate.taxPercent)
  if (tax.gt(0))
    step(`tax ${decimalText(tax)} %`, 'tax', (_, working) =>
      multiply('tax', [working, input('percent', tax, '%'), input('of a hundred', '0.01')]),
    )
  return { steps, total }
}

/** Own cost divided by the share that is not margin: the margin is a share of the customer's price. */
export function customerPrice(working: Working, marginPercent: Decimal): Working {
  return divide("customer's price", [
    working,
    subtract('share that is not margin', [
      input('all', 1),
      multiply('margin', [input('percent', marginPercent, '%'), input('of a hundred', '0.01')]),
    ]),
  ])
}

/** The sum of some rows in a figure, exactly. */
export function sumOfRows(rows: readonly PricedComponent[], name: FigureName, termYears: number): DecimalText {
  return decimalText(rows.reduce((total, row) => (row.chosen ? total.plus(evaluate(figureOf(row.chosen, name, termYears))) : total), zero))
}
