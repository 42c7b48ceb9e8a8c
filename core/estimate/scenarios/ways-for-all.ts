import { decimalText, type DecimalText } from '../../money/decimal'
import { add, divide, evaluate } from '../../working/working'
import { wayToPay, type Estimate, type WayToPay } from '../estimate'
import { figuresOf, figureText, type FigureName } from '../pricing/figures'
import { PriceMemo } from '../pricing/price-memo'
import { priceEstimate, type Prices } from '../pricing/price-estimate'
import type { PricedEstimate } from '../pricing/priced'
import { notCounted, type NotCounted } from './compare'
import { asScenario } from './layer'

/** The whole estimate with everything that can be committed to paid one way. */
export type WayForAll = {
  way: WayToPay
  figures: Record<FigureName, DecimalText>
  /** Rows that this way changes. */
  rows: number
  /** Hours a month of what is committed from which it is cheaper than on-demand, all rows together; null without a commitment. */
  breakEvenHours: DecimalText | null
  /** Rows that are not in its figures; null when all are. */
  lacks: NotCounted | null
}

/**
 * Every way to pay for the whole, side by side: each is the estimate with that way wished for everything; rows that do not offer it stay as
 * they are. All are over the same years: those of the estimate, else of the longest commitment offered.
 */
export function waysForAll(estimate: Estimate, prices: Prices): { years: number; ways: WayForAll[] } {
  const memo = new PriceMemo()
  const base = priceEstimate(estimate, prices, null, memo)
  const counted = base.rows.filter(row => base.counted.has(row.id) && row.ways.length > 1)
  const offered = new Set(counted.flatMap(row => row.ways.map(way => way.way)))
  const years = estimate.termYears ?? Math.max(1, ...counted.flatMap(row => row.ways.map(way => way.years ?? 1)))
  const ways = wayToPay.options
    .filter(way => way === 'on-demand' || offered.has(way))
    .map((way): WayForAll => {
      const priced = priceEstimate({ ...estimate, termYears: years }, prices, asScenario({ whole: { pays: way } }, way, way), memo)
      return {
        way,
        figures: figuresOf(name => figureText(priced.total[name])),
        rows: counted.filter(row => priced.byId.get(row.id)?.chosen?.way === way).length,
        breakEvenHours: breakEven(priced),
        lacks: notCounted(priced, base),
      }
    })
  return { years, ways }
}

/**
 * Σ effective monthly of what is committed / Σ its on-demand price an hour: the rows' own quotients, their parts added up. Null where they
 * are of several currencies.
 */
function breakEven(priced: PricedEstimate): DecimalText | null {
  const committed = priced.rows.filter(row => priced.counted.has(row.id) && row.chosen?.breakEvenHours)
  if (!committed.length || new Set(committed.map(row => row.place!.card.currency)).size > 1) return null
  const quotients = committed.flatMap(({ chosen }) => (chosen!.breakEvenHours!.op === 'quotient' ? [chosen!.breakEvenHours!.parts] : []))
  return decimalText(
    evaluate(
      divide('break-even hours a month', [
        add(
          'committed',
          quotients.map(parts => parts[0]!),
        ),
        add(
          'on-demand, an hour',
          quotients.map(parts => parts[1]!),
        ),
      ]),
    ),
  )
}
