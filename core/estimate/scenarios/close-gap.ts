import { Decimal, decimalText, type DecimalText } from '../../money/decimal'
import { evaluate } from '../../working/working'
import { findPrice, findSize } from '../../ratecard/rate-card'
import { wayToPay, type Estimate, type Scenario } from '../estimate'
import { readNumber } from '../number-text'
import { priceEstimate, type PricedComponent, type PriceMemo, type Prices } from '../price-estimate'
import { layer } from './layer'
import { moveScenario } from './move'

/** One single change that makes the estimate cheaper. */
export type Closer = {
  id: string
  label: string
  /** What it asks of people, where it is more than a choice. */
  ifPossible?: string
  change: Pick<Scenario, 'whole' | 'rows'>
  /** Effective monthly, how much less. */
  saving: DecimalText
  /** Whether it alone brings the total under the target. */
  closes: boolean
}

/** Rows that are looked at one by one: the dearest ones. */
const LOOKED_AT = 15

/**
 * Single changes that make an estimate cheaper, largest saving first, each priced for itself: other ways to pay, sizes, classes, hours,
 * regions, and less of what is charged for use. Seen from a scenario, they come on top of what it changes.
 */
export function closeGap(estimate: Estimate, prices: Prices, memo: PriceMemo, scenario: Scenario | null = null): Closer[] {
  const now = priceEstimate(estimate, prices, scenario, memo)
  const total = evaluate(now.total.effectiveMonthly)
  const label = new Map(estimate.components.map(c => [c.id, c]))
  const rows = now.rows.filter(row => now.counted.has(row.id)).sort((a, b) => evaluate(b.chosen!.effectiveMonthly).cmp(evaluate(a.chosen!.effectiveMonthly))).slice(0, LOOKED_AT)
  const wholes = [...waysForAll(now.rows), ...otherRegions(estimate, prices)]
  const singles = rows.flatMap(row => changesOf(row).map(change => ({ ...change, label: `${row.kind!.label}${label.get(row.id)!.part ? ` in ${label.get(row.id)!.part}` : ''}: ${change.label}` })))
  return [...wholes, ...singles].flatMap((candidate): Closer[] => {
    const change = layer(scenario, candidate.change)
    const changed = priceEstimate(estimate, prices, { id: 'candidate', name: candidate.label, ...change }, memo)
    const saving = total.minus(evaluate(changed.total.effectiveMonthly))
    if (saving.lte(0) || changed.unpriced > now.unpriced) return []
    return [{ ...candidate, change, saving: decimalText(saving), closes: estimate.target !== null && evaluate(changed.total.effectiveMonthly).lte(estimate.target) }]
  }).sort((a, b) => new Decimal(b.saving).cmp(a.saving))
}

type Candidate = Pick<Closer, 'id' | 'label' | 'ifPossible' | 'change'>

function waysForAll(rows: PricedComponent[]): Candidate[] {
  const offered = new Set(rows.flatMap(row => row.ways.length > 1 ? row.ways.map(way => way.way) : []))
  return wayToPay.options.filter(way => way !== 'on-demand' && offered.has(way)).map(way => ({ id: `pays ${way}`, label: `everything ${way}`, change: { whole: { pays: way }, rows: {} } }))
}

function otherRegions(estimate: Estimate, { cards }: Prices): Candidate[] {
  const card = cards.get(estimate.provider)
  return (card?.regions ?? []).filter(region => region.id !== estimate.region).map((region) => {
    const { scenario: { whole, rows } } = moveScenario(estimate, cards, { provider: estimate.provider, region: region.id }, '', '')
    return { id: `region ${region.id}`, label: `everything in ${region.id}`, change: { whole, rows } }
  })
}

/** What could be otherwise in one row. */
function changesOf(row: PricedComponent): Candidate[] {
  const { id, inputs, place, ways, chosen } = row
  const set = (what: string, values: Record<string, string>, label: string, ifPossible?: string): Candidate => ({ id: `${id} ${what}`, label, change: { whole: {}, rows: { [id]: values } }, ...(ifPossible && { ifPossible }) })
  const changes = ways.filter(way => way !== chosen).map(way => set(way.way, { pays: way.way }, way.way))
  if (!place) return changes
  const size = inputs.size && findSize(place.card, inputs.size)
  for (const field of row.kind!.fields) {
    const value = inputs[field.name]!
    if (field.type === 'choice' && field.column === 'size') {
      for (const option of field.options(place.card, place.region)) {
        if (option === value || row.kind!.kind === 'metered' || row.kind!.kind === 'licence') continue
        const other = findSize(place.card, option)
        if (field.meter && size && other) {
          // a step down at most: half as large is a question for whoever runs it
          const same = other.vcpu >= size.vcpu && other.memoryGb >= size.memoryGb
          if (!same && (other.vcpu * 2 < size.vcpu || other.memoryGb * 2 < size.memoryGb)) continue
          if (cheaper(place, field.meter, option, value)) changes.push(set(option, { [field.name]: option }, option, same ? other.architecture === size.architecture ? undefined : `if it runs on ${other.architecture}` : 'if half as large is enough'))
        }
        else changes.push(set(option, { [field.name]: option }, option, 'if that class is enough'))
      }
    }
    if (field.type === 'hours' && readNumber(value)?.likely.gte(700) && inputs.size) changes.push(set('5d x 12h', { [field.name]: '5d x 12h' }, '12 hours on 5 days', 'if it can sleep at night'))
    const amount = field.type === 'number' && field.column === 'amount' ? readNumber(value) : null
    if (amount && amount.likely.gt(0) && ['internet-transfer', 'logs', 'functions', 'gateway'].includes(row.kind!.kind)) {
      changes.push(set('a third less', { [field.name]: amount.likely.times(2).div(3).round(0).toFixed() }, `a third less ${field.label}`, 'if it can be made smaller, by compressing or keeping copies nearer'))
    }
  }
  return changes
}

function cheaper({ card, region }: NonNullable<PricedComponent['place']>, meter: Parameters<typeof findPrice>[1], option: string, than: string): boolean {
  const [a, b] = [findPrice(card, meter, region, option), findPrice(card, meter, region, than)]
  return Boolean(a && b && new Decimal(a.tiers[0]!.price).lt(b.tiers[0]!.price))
}

