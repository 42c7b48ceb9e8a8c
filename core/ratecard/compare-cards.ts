import { Decimal, decimalText, type DecimalText } from '../money/decimal'
import { describeLine } from './describe'
import type { PriceLine, RateCard } from './rate-card'

/** How a line differs between two versions of a card. `share` is the change of the first tier's price. */
export type LineChange = {
  sku: string
  words: string
  change: 'dearer' | 'cheaper' | 'new' | 'gone' | 'other terms'
  before: DecimalText | null
  after: DecimalText | null
  unit: string
  share: DecimalText | null
}

const firstPrice = (line: PriceLine) => line.tiers[0]!.price
const sorted = <T extends object>(of: T | undefined) => of && Object.entries(of).sort(([a], [b]) => (a < b ? -1 : 1))
/** Everything that decides what a line costs, in one text, whatever order its keys are held in. */
const terms = ({ unit, tiering, tiers, freeAllowance, minimumQuantity, minimumCharge, commitments, includes }: PriceLine) =>
  JSON.stringify([
    unit,
    tiering,
    tiers.map(t => [t.from, t.price]),
    freeAllowance,
    minimumQuantity,
    minimumCharge,
    commitments?.map(sorted),
    sorted(includes),
  ])

/**
 * What differs from one version of a provider's card to another: dearer, cheaper, new, gone, and lines whose price stays but whose terms do
 * not.
 */
export function compareCards(before: RateCard, after: RateCard): LineChange[] {
  const old = new Map(before.prices.map(line => [line.sku, line]))
  const changes = after.prices.flatMap((line): LineChange[] => {
    const was = old.get(line.sku)
    old.delete(line.sku)
    const of = { sku: line.sku, words: describeLine(line, after), unit: line.unit, after: firstPrice(line) }
    if (!was) return [{ ...of, change: 'new', before: null, share: null }]
    if (terms(was) === terms(line)) return []
    const [then, now] = [new Decimal(firstPrice(was)), new Decimal(firstPrice(line))]
    const change = now.gt(then) ? 'dearer' : now.lt(then) ? 'cheaper' : 'other terms'
    return [{ ...of, change, before: firstPrice(was), share: then.eq(0) ? null : decimalText(now.minus(then).div(then).round(6)) }]
  })
  const gone = [...old.values()].map((line): LineChange => ({
    sku: line.sku,
    words: describeLine(line, before),
    change: 'gone',
    before: firstPrice(line),
    after: null,
    unit: line.unit,
    share: null,
  }))
  return [...changes, ...gone]
}
