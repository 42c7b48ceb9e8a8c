import { scaledText } from '../../../../core/money/scaled'
import { costMeasures, type CostMeasure, type Measure } from '../../../../core/spend/question'
import { sumByCurrency } from '../../../../core/spend/answer'
import type { PriceParts } from '../../../../shared/contracts/spend'
import { checkScope } from '../../../http/question'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

const MOST_PARTS = 200
const isCost = (measure: Measure): measure is CostMeasure => (costMeasures as readonly string[]).includes(measure)
const parts = ['SkuId', 'SkuPriceId', 'ChargeCategory', 'ChargeDescription', 'PricingUnit', 'ContractedUnitPrice']

/** What the charges of a narrowing are made of: quantity × unit price, largest first. */
export default route(operations.spend.priceParts, async ({ cube, body: question }): Promise<PriceParts> => {
  checkScope({ ...question, splitBy: [] })
  const { revision, result } = await cube.ask('group', {
    ...question,
    splitBy: parts,
    grain: 'day',
    measures: [isCost(question.measure) ? question.measure : 'effectiveCost', 'pricingQuantity'],
  })
  const byPart = new Map<
    string,
    { first: (typeof result)[number]; amount: bigint; quantity: bigint; charges: number; firstDay: string; lastDay: string }
  >()
  for (const group of result) {
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
    revision,
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
})
