import { scaledText, type Scaled } from '../money/scaled'
import type { Day } from '../time/day'
import { plainGroups, sumByCurrency, type Group } from './plain-groups'
import type { Cube } from './cube'
import { isCost, type CurrencyAmount, type Question } from './question'

/** Quantity × unit price, as the charges have it; texts with every digit. */
export type PricePart = {
  skuId: string | null
  skuPriceId: string | null
  chargeCategory: string | null
  description: string | null
  pricingUnit: string | null
  unitPrice: string | null
  quantity: string
  currency: string
  amount: string
  charges: number
  firstDay: Day
  lastDay: Day
}

const MOST_PARTS = 200
const parts = ['SkuId', 'SkuPriceId', 'ChargeCategory', 'ChargeDescription', 'PricingUnit', 'ContractedUnitPrice']

/** What the charges of a question are made of: quantity × unit price, the largest first, and what all beyond the first 200 come to. */
export function pricePartsOf(
  cube: Cube,
  question: Question,
): { parts: PricePart[]; rest: { count: number; amounts: CurrencyAmount[] } | null } {
  const groups = plainGroups(cube, {
    ...question,
    splitBy: parts,
    grain: 'day',
    measures: [isCost(question.measure) ? question.measure : 'effectiveCost', 'pricingQuantity'],
  })
  const byPart = new Map<string, { first: Group; amount: Scaled; quantity: Scaled; charges: number; firstDay: Day; lastDay: Day }>()
  for (const group of groups) {
    const key = JSON.stringify([group.currency, ...parts.map(part => group.values[part])])
    const known = byPart.get(key) ?? { first: group, amount: 0n, quantity: 0n, charges: 0, firstDay: group.start!, lastDay: group.start! }
    known.amount += group.amounts[0]!
    known.quantity += group.amounts[1]!
    known.charges += group.count
    if (group.start! < known.firstDay) known.firstDay = group.start!
    if (group.start! > known.lastDay) known.lastDay = group.start!
    byPart.set(key, known)
  }
  const sorted = [...byPart.values()].sort((a, b) => (a.amount === b.amount ? 0 : a.amount > b.amount ? -1 : 1))
  const others = sorted.slice(MOST_PARTS)
  return {
    rest: others.length
      ? { count: others.length, amounts: sumByCurrency(others.map(({ first, amount }) => ({ currency: first.currency, amount }))) }
      : null,
    parts: sorted
      .slice(0, MOST_PARTS)
      .map(({ first, amount, quantity, charges, firstDay, lastDay }) => ({
        skuId: first.values.SkuId!,
        skuPriceId: first.values.SkuPriceId!,
        chargeCategory: first.values.ChargeCategory!,
        description: first.values.ChargeDescription!,
        pricingUnit: first.values.PricingUnit!,
        unitPrice: first.values.ContractedUnitPrice!,
        quantity: scaledText(quantity),
        currency: first.currency,
        amount: scaledText(amount),
        charges,
        firstDay,
        lastDay,
      })),
  }
}
