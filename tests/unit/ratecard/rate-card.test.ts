import { expect, it } from 'vitest'
import { rateCardSchema, variantsOf } from '../../../core/ratecard/rate-card'
import { brackwaterCard, larkfieldCard } from '../../../demo/rate-cards'
import { testCard } from '../../support/test-card'

const refuse = (change: (card: typeof testCard) => void) => {
  const card = structuredClone(testCard)
  change(card)
  const read = rateCardSchema.safeParse(card)
  return read.success ? '' : read.error.issues.map(i => `${i.path.join('.')}: ${i.message}`).join('; ')
}

it("takes the demo's cards", () => {
  expect(rateCardSchema.parse(brackwaterCard)).toEqual(brackwaterCard)
  expect(rateCardSchema.parse(larkfieldCard)).toEqual(larkfieldCard)
  expect(variantsOf(brackwaterCard, 'server-hour', 'low-coast')).toContain('otter-6x24')
})

it('refuses a bad card line by line', () => {
  expect(
    refuse(c => {
      c.prices[1]!.sku = c.prices[0]!.sku
    }),
  ).toContain('prices.1.sku: the SKU')
  expect(
    refuse(c => {
      c.prices[0]!.region = 'moon'
    }),
  ).toContain('no region moon')
  expect(
    refuse(c => {
      c.prices[0]!.tiers = [{ from: '5', price: '1' }]
    }),
  ).toContain('must start at 0')
  expect(
    refuse(c => {
      c.prices[0]!.tiers = [
        { from: '0', price: '1' },
        { from: '9', price: '1' },
        { from: '9', price: '2' },
      ]
    }),
  ).toContain('does not come after')
  expect(
    refuse(c => {
      c.prices[0]!.tiers[0]!.price = '-1'
    }),
  ).toContain('zero or more')
  expect(
    refuse(c => {
      c.currency = 'EURO'
    }),
  ).toContain('ISO 4217')
  expect(
    refuse(c => {
      c.prices[0]!.commitments!.push(c.prices[0]!.commitments![0]!)
    }),
  ).toContain('there twice')
})

it('is believable: a bigger machine costs more, a commitment less', () => {
  for (const card of [brackwaterCard, larkfieldCard]) {
    for (const line of card.prices.filter(p => p.meter === 'server-hour')) {
      const size = card.serverSizes.find(s => s.size === line.variant)!
      for (const other of card.prices.filter(p => p.meter === 'server-hour' && p.region === line.region)) {
        const otherSize = card.serverSizes.find(s => s.size === other.variant)!
        if (
          otherSize.architecture === size.architecture &&
          otherSize.vcpu >= size.vcpu &&
          otherSize.memoryGb >= size.memoryGb &&
          other !== line
        )
          expect(Number(other.tiers[0]!.price)).toBeGreaterThan(Number(line.tiers[0]!.price))
      }
      let before = Number(line.tiers[0]!.price)
      for (const { years, upfrontPrice, hourlyPrice } of line.commitments!) {
        const effective = Number(hourlyPrice) + Number(upfrontPrice) / (years * 8760)
        expect(effective).toBeLessThan(before)
        before = effective
      }
    }
    for (const line of card.prices)
      line.tiers.reduce((last, tier) => {
        expect(Number(tier.price)).toBeLessThan(last)
        return Number(tier.price)
      }, Infinity)
  }
})
