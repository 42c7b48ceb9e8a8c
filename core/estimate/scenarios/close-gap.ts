import { Decimal, decimalText, type DecimalText } from '../../money/decimal'
import { findPrice, findSize } from '../../ratecard/find-price'
import { evaluate } from '../../working/working'
import { applies } from '../components/kind'
import { wayToPay, type Estimate, type Scenario } from '../estimate'
import { likelyHours, readHours } from '../sheet/hours-text'
import { readNumber } from '../sheet/number-text'
import { figureOf, priceEstimate, type PricedComponent, type Prices } from '../pricing/price-estimate'
import { MUTED } from '../pricing/overrides'
import type { PriceMemo } from '../pricing/price-memo'
import { placeText } from '../pricing/place'
import { rowNames } from '../sheet/row-name'
import { alike, notCounted } from './compare'
import { asScenario, layer, type Change } from './layer'

/** One single change that makes the estimate cheaper. */
export type Closer = {
  id: string
  label: string
  /** What it asks of people, where it is more than a choice. */
  ifPossible?: string
  change: Change
  /** Effective monthly, how much less, over the rows that can be priced before and after. */
  saving: DecimalText
  /** Whether it alone brings the total under the target; never where the total lacks rows. */
  closes: boolean
  /** How many rows the total lacks with it. */
  lacks: number
}

/** Rows that are looked at one by one: the dearest ones. */
const LOOKED_AT = 15

/**
 * Single changes that make an estimate cheaper, largest saving first, each priced for itself: other ways to pay, sizes, classes, hours,
 * regions, less of what is charged for use, and last of all leaving a row out. Seen from a scenario, they come on top of what it changes. A
 * change
 * after which a row cannot be priced saves nothing by that, stands behind all others and closes nothing.
 */
export function closeGap(estimate: Estimate, prices: Prices, memo: PriceMemo, scenario: Scenario | null = null): Closer[] {
  const now = priceEstimate(estimate, prices, scenario, memo)
  const names = rowNames(estimate.components)
  const rows = now.rows
    .filter(row => now.counted.has(row.id))
    .sort((a, b) =>
      evaluate(figureOf(b.chosen!, 'effectiveMonthly', now.termYears)).cmp(
        evaluate(figureOf(a.chosen!, 'effectiveMonthly', now.termYears)),
      ),
    )
    .slice(0, LOOKED_AT)
  const wholes = [...waysForAll(now.rows), ...otherRegions(estimate, prices, scenario)]
  const singles = rows.flatMap(row =>
    changesOf(row, now.monthHours).map(change => ({ ...change, label: `${names.get(row.id)!}: ${change.label}` })),
  )
  return [...wholes, ...singles]
    .flatMap((candidate): Closer[] => {
      const change = layer(scenario, candidate.change)
      const column = asScenario(change, 'candidate', candidate.label)
      const first = priceEstimate(estimate, prices, column, memo)
      // both over the years that the estimate would have with it
      const years = { ...estimate, termYears: Math.max(now.termYears, first.termYears) }
      const [present, changed] = [priceEstimate(years, prices, scenario, memo), priceEstimate(years, prices, column, memo)]
      const [before, after] = alike(years, prices, present, changed, memo)
      const saving = evaluate(before.total.effectiveMonthly).minus(evaluate(after.total.effectiveMonthly))
      if (saving.lte(0)) return []
      const lacks = notCounted(changed, present)?.rows ?? 0
      return [
        {
          ...candidate,
          change,
          saving: decimalText(saving),
          lacks,
          closes: !lacks && estimate.target !== null && evaluate(changed.total.effectiveMonthly).lte(estimate.target),
        },
      ]
    })
    .sort((a, b) => a.lacks - b.lacks || Number(isWithout(a)) - Number(isWithout(b)) || new Decimal(b.saving).cmp(a.saving))
}

/** Leaving a row out always saves the most: it stands behind what keeps the workload whole. */
const isWithout = ({ change }: Pick<Closer, 'change'>) => Object.values(change.rows).some(inputs => inputs[MUTED] === 'yes')

type Candidate = Pick<Closer, 'id' | 'label' | 'ifPossible' | 'change'>

const wholly = (whole: Record<string, string>): Change => ({ whole, rows: {}, conditions: [] })

function waysForAll(rows: PricedComponent[]): Candidate[] {
  const offered = new Set(rows.flatMap(row => (row.ways.length > 1 ? row.ways.map(way => way.way) : [])))
  return wayToPay.options
    .filter(way => way !== 'on-demand' && offered.has(way))
    .map(way => ({ id: `pays ${way}`, label: `everything ${way}`, change: wholly({ pays: way }) }))
}

function otherRegions(estimate: Estimate, { cards }: Prices, scenario: Scenario | null): Candidate[] {
  const card = cards.get(estimate.provider)
  const now = scenario?.whole.where ?? ''
  return (card?.regions ?? [])
    .map(region => ({ region, where: placeText(estimate.provider, region.id, estimate) }))
    .filter(({ where }) => where !== now)
    .map(({ region, where }) => ({ id: `region ${region.id}`, label: `everything in ${region.id}`, change: wholly({ where }) }))
}

/** What could be otherwise in one row. */
function changesOf(row: PricedComponent, monthHours: number): Candidate[] {
  const { id, inputs, place, ways, chosen } = row
  const set = (what: string, values: Record<string, string>, label: string, conditions: string[] = []): Candidate => ({
    id: `${id} ${what}`,
    label,
    change: { whole: {}, rows: { [id]: values }, conditions },
    ...(conditions.length && { ifPossible: conditions.join(' and ') }),
  })
  const changes = ways
    .filter(way => way !== chosen)
    .map(way =>
      set(
        [way.way, way.commits].filter(Boolean).join(' '),
        { pays: way.way, ...(way.commits !== null && { commitTo: way.commits }) },
        [way.way, way.commits && `for the ${way.commits}`].filter(Boolean).join(', '),
      ),
    )
  if (!place) return changes
  const size = inputs.size && findSize(place.card, inputs.size)
  for (const field of row.kind!.fields) {
    const value = inputs[field.name]!
    if (!applies(field, inputs, place)) continue
    if (field.type === 'choice' && field.column === 'size' && row.kind!.kind !== 'metered' && row.kind!.kind !== 'licence') {
      for (const option of field.options(place.card, place.region)) {
        if (option === value) continue
        const other = findSize(place.card, option)
        if (field.meter && size && other) {
          // a step down at most: half as large is a question for whoever runs it
          const isAsLarge = other.vcpu >= size.vcpu && other.memoryGb >= size.memoryGb
          if (!isAsLarge && (other.vcpu * 2 < size.vcpu || other.memoryGb * 2 < size.memoryGb)) continue
          const conditions = [
            ...(other.architecture !== size.architecture && other.architecture ? [`if it runs on ${other.architecture}`] : []),
            ...(isAsLarge ? [] : ['if half is enough']),
          ]
          if (isCheaper(place, field.meter, option, value)) changes.push(set(option, { [field.name]: option }, option, conditions))
        } else changes.push(set(option, { [field.name]: option }, option, ['if that class is enough']))
      }
    }
    const hours = field.type === 'hours' && inputs.size ? readHours(value) : null
    if (hours && likelyHours(hours, monthHours).gte(monthHours * 0.95))
      changes.push(set('5d x 12h', { [field.name]: '5d x 12h' }, '12 hours on 5 days', ['if it can sleep at night']))
    const amount = field.type === 'number' && field.column === 'amount' ? readNumber(value) : null
    if (amount && amount.likely.gt(0) && ['internet-transfer', 'logs', 'functions', 'gateway'].includes(row.kind!.kind)) {
      changes.push(
        set('a third less', { [field.name]: amount.likely.times(2).div(3).round(0).toFixed() }, `a third less ${field.label}`, [
          'if it can be made smaller, by compressing or keeping copies nearer',
        ]),
      )
    }
  }
  return [...changes, set('out', { [MUTED]: 'yes' }, 'left out', ['if one can do without it'])]
}

function isCheaper(
  { card, region }: NonNullable<PricedComponent['place']>,
  meter: Parameters<typeof findPrice>[1],
  option: string,
  than: string,
): boolean {
  const [a, b] = [findPrice(card, meter, region, option), findPrice(card, meter, region, than)]
  return Boolean(a && b && new Decimal(a.tiers[0]!.price).lt(b.tiers[0]!.price))
}
