import { expect, it } from 'vitest'
import { againstBill, estimateFromUse } from '../../../core/estimate/from-use'
import type { UsedLine } from '../../../core/spend/used'
import { figureText, priceEstimate } from '../../../core/estimate/pricing/price-estimate'
import { demoDeliveries } from '../../../demo/deliveries'
import { brackwaterCard, larkfieldCard } from '../../../demo/rate-cards'

const cards = new Map([brackwaterCard, larkfieldCard].map(c => [c.provider, c]))
const ids = () => {
  let n = 0
  return () => `r${n++}`
}

/** What the demo's bill of a month has, added up by resource and SKU, and its list cost. */
async function usedIn(month: string, file: string): Promise<{ lines: UsedLine[]; listCost: { currency: string; amount: string }[] }> {
  const byKey = new Map<string, UsedLine & { sum: number }>()
  let listed = 0
  let currency = ''
  for (const delivery of demoDeliveries()) {
    if (delivery.month !== month || !delivery.file.startsWith(file)) continue
    for (const c of delivery.charges()) {
      if (c.ChargeCategory !== 'Usage' || c.ChargeClass || !c.SkuId) continue
      const key = `${c.ResourceId} ${c.SkuId}`
      const known = byKey.get(key) ?? {
        provider: c.ProviderName!,
        region: c.RegionId!,
        service: c.ServiceName!,
        sku: c.SkuId,
        resource: c.ResourceId || null,
        resourceName: c.ResourceName || null,
        quantity: '0',
        sum: 0,
      }
      known.sum += Number(c.PricingQuantity)
      byKey.set(key, known)
      listed += Number(c.ListCost)
      currency = c.BillingCurrency!
    }
  }
  return {
    lines: [...byKey.values()].map(({ sum, ...line }) => ({ ...line, quantity: sum.toFixed(9).replace(/\.?0+$/, '') })),
    listCost: [{ currency, amount: listed.toFixed(9) }],
  }
}

it.each([
  ['2026-10', 'brackwater', 'Brackwater Cloud'],
  ['2026-02', 'brackwater', 'Brackwater Cloud'],
  ['2026-10', 'larkfield', 'Larkfield Compute'],
])("what ran in %s at %s, priced on the card of that time, is the bill's list cost", async (month, file, provider) => {
  const { lines, listCost } = await usedIn(month, file)
  const { estimate, unknown } = estimateFromUse('t', month, lines, cards, ids())
  // hours of a commitment that nothing used are billed, but are no use
  expect(unknown.filter(line => line.resource !== null || !line.sku.endsWith('-1Y'))).toEqual([])
  expect(estimate).toMatchObject({ month, provider })
  const priced = priceEstimate(estimate, { cards, uplifts: [], rates: [] })
  expect(priced.unpriced).toBe(0)
  const total = Number(figureText(priced.total.monthly))
  // quantities are added up in floats here, of some thousands of charges
  expect(Math.abs(total - Number(listCost[0]!.amount))).toBeLessThan(0.01)
  expect(Math.abs(Number(againstBill(estimate, cards, lines, listCost)!.difference))).toBeLessThan(0.01)
  expect(estimate.components.length).toBeLessThan(lines.length / 2)
})

it('says by how much a part alone differs from its share of the bill, and which tiers make it', async () => {
  const sent = brackwaterCard.prices.find(p => p.meter === 'transfer-out-gb' && p.region === 'low-coast')!
  const line: UsedLine = {
    provider: 'Brackwater Cloud',
    region: 'low-coast',
    service: 'Outgoing transfer',
    sku: sent.sku,
    resource: 'r',
    resourceName: null,
    quantity: '1000',
  }
  const { estimate } = estimateFromUse('t', '2026-10', [line], cards, ids())
  // the bill had it in the second tier, as others had sent ten thousand GB before
  const listed = (1000 * Number(sent.tiers[1]!.price)).toFixed(6)
  const bill = againstBill(estimate, cards, [line], [{ currency: 'EUR', amount: listed }])!
  expect(Number(bill.difference)).toBeCloseTo(1000 * (Number(sent.tiers[0]!.price) - Number(sent.tiers[1]!.price)), 6)
  expect(bill.tiered).toEqual(['Outgoing transfer in Low Coast: sent out, GB'])
  expect(
    againstBill(
      estimate,
      cards,
      [line],
      [
        { currency: 'EUR', amount: '1' },
        { currency: 'USD', amount: '1' },
      ],
    ),
  ).toBeNull()
})

it('names lines that no card prices, and makes nothing up for them', () => {
  const { estimate, unknown } = estimateFromUse(
    't',
    '2026-10',
    [{ provider: 'Elsewhere', region: 'x', service: 's', sku: 'NOPE', resource: null, resourceName: null, quantity: '3' }],
    cards,
    ids(),
  )
  expect(unknown.map(l => l.sku)).toEqual(['NOPE'])
  expect(estimate.components).toEqual([])
})
