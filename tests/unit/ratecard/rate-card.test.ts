import { expect, it } from 'vitest'
import { describeLine } from '../../../core/ratecard/describe'
import { usualWays } from '../../../core/ratecard/earlier-words'
import { earlierCard, rateCardSchema, type PriceLine } from '../../../core/ratecard/rate-card'
import { findPrice, findSize, findSku, hasMeter, linesOf, variantsOf } from '../../../core/ratecard/find-price'
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
  ).toContain('appears twice')
})

it('says of each fault what it is and where', () => {
  const at = (change: (line: PriceLine, card: typeof testCard) => void) => refuse(c => change(c.prices[0]!, c))
  expect(at(line => void (line.region = 'moon'))).toBe('prices.0.region: the card has no region moon')
  expect(at(line => void (line.variant = 'huge'))).toBe(
    'prices.0.variant: the card does not say how large huge is: name it among the server sizes',
  )
  expect(at(line => void (line.variant = null))).toBe(
    'prices.0.variant: the card does not say how large it is: name it among the server sizes',
  )
  expect(at(line => void (line.unit = 'GB'))).toBe('prices.0.unit: server-hour is priced in Hours, not in GB')
  const tiers = (...list: [from: string, price: string, to?: string][]) =>
    at(line => void (line.tiers = list.map(([from, price, to]) => ({ from, price, ...(to !== undefined && { to }) }))))
  expect(tiers()).toMatch(/^prices\.0\.tiers: /)
  expect(tiers(['1', '2'])).toBe('prices.0.tiers: the first tier must start at 0')
  expect(tiers(['0', '2'], ['5', '1'], ['5', '0.5'])).toBe('prices.0.tiers: the tier from 5 does not come after the tier from 5')
  expect(tiers(['0', '2', '4'], ['5', '1'])).toBe('prices.0.tiers: there is a gap between the tier to 4 and the tier from 5')
  expect(tiers(['0', '2', '6'], ['5', '1'])).toBe('prices.0.tiers: there is an overlap between the tier to 6 and the tier from 5')
  expect(tiers(['0', '2', '5'], ['5', '1', '9'])).toBe('prices.0.tiers: nothing is priced from 9 on: leave the end of the last tier open')
  expect(tiers(['0', '2', '5.0'], ['5', '1'])).toBe('')
  // a number that is none is said once, where it stands
  expect(tiers(['x', '2'])).toBe('prices.0.tiers.0.from: a number of zero or more, as text, such as "0.0231"')
  expect(tiers(['0', '2', 'x'], ['5', '1'])).toBe('prices.0.tiers.0.to: a number of zero or more, as text, such as "0.0231"')
  const committed = (...list: { paid: 'paid monthly' | 'all in advance' | 'part in advance'; upfront: string; hourly: string }[]) =>
    at(
      line =>
        void (line.commitments = list.map(({ paid, upfront, hourly }) => ({ years: 3, paid, upfrontPrice: upfront, hourlyPrice: hourly }))),
    )
  const all = { paid: 'all in advance' as const, upfront: '5', hourly: '0' }
  expect(committed(all, all)).toBe('prices.0.commitments: 3 years, all in advance appears twice')
  expect(committed({ ...all, upfront: '0' })).toBe('prices.0.commitments: 3 years, all in advance: it has no upfront price')
  expect(committed({ paid: 'part in advance', upfront: '5', hourly: '0' })).toBe(
    'prices.0.commitments: 3 years, part in advance: it has no hourly price',
  )
  expect(committed({ paid: 'paid monthly', upfront: '0', hourly: 'x' })).toContain('prices.0.commitments.0.hourlyPrice')
  expect(committed({ ...all, upfront: 'x' })).toContain('prices.0.commitments.0.upfrontPrice')
  expect(at((line, card) => card.prices.push({ ...line, sku: 'other' }))).toBe(
    `prices.${testCard.prices.length}.variant: server-hour «small» in here has two prices: T-server-hour-small and other; leave one`,
  )
  const transfer = testCard.prices.find(p => p.meter === 'transfer-out-gb')!
  expect(refuse(card => card.prices.push({ ...transfer, sku: 'other' }))).toBe(
    `prices.${testCard.prices.length}.variant: transfer-out-gb in here has two prices: T-transfer-out-gb-null and other; leave one`,
  )
  // one SKU twice is one fault, not two
  expect(refuse(card => card.prices.push(transfer))).toBe(
    `prices.${testCard.prices.length}.sku: the SKU T-transfer-out-gb-null is in the card twice`,
  )
})

it('reads earlier words where they stand, and leaves everything else to the checks', () => {
  for (const wrong of [null, undefined, 5, 'card', [], {}, { prices: 'none' }, { prices: null }]) expect(earlierCard(wrong)).toBe(wrong)
  const strange = {
    prices: [null, 7, 'line', { commitments: 'none' }, { commitments: [null, 7, 'one', { paid: 'x', upfront: 'all' }, { upfront: 7 }] }],
  }
  expect(earlierCard(strange)).toEqual({
    prices: [null, 7, 'line', { commitments: 'none' }, { commitments: [null, 7, 'one', { paid: 'x', upfront: 'all' }, { paid: 7 }] }],
  })
  expect(earlierCard({ prices: [{ commitments: [{ years: 1, upfront: 'part' }, { upfront: 'toString' }] }] })).toEqual({
    prices: [{ commitments: [{ years: 1, paid: 'part in advance' }, { paid: 'toString' }] }],
  })
  expect(
    ['1 year, none upfront', '3 years, all upfront', 'xx1 year, part upfront', '1 year, part upfront now', 'on-demand'].map(usualWays),
  ).toEqual(['1 year, paid monthly', '3 years, all in advance', 'xx1 year, part upfront', '1 year, part upfront now', 'on-demand'])
})

it('finds lines by meter, region and variant; where a line names none, by its service too', () => {
  const [first, second] = [
    { ...testCard.prices[0]!, sku: 'F', meter: 'cache-hour', variant: null, service: 'Cache' },
    { ...testCard.prices[0]!, sku: 'G', meter: 'cache-hour', variant: 'Cache', service: 'Cache' },
  ]
  const card = { ...testCard, prices: [...testCard.prices, first, second] }
  expect(findPrice(card, 'cache-hour', 'here')?.sku).toBe('F')
  // what is called so comes before what is only of that service
  expect(findPrice(card, 'cache-hour', 'here', 'Cache')?.sku).toBe('G')
  expect(findPrice({ ...card, prices: [first] }, 'cache-hour', 'here', 'Cache')?.sku).toBe('F')
  expect(findPrice(card, 'cache-hour', 'there')).toBeUndefined()
  expect(linesOf(card, 'cache-hour', 'here').map(line => line.sku)).toEqual(['F', 'G'])
  expect(linesOf(card, 'cache-hour', 'there')).toEqual([])
  expect(variantsOf(card, 'disk-gb-month', 'here')).toEqual(['plain'])
  expect(variantsOf(card, 'disk-gb-month', 'there')).toEqual([])
  expect([hasMeter(card, 'disk-gb-month', 'here'), hasMeter(card, 'disk-gb-month', 'there')]).toEqual([true, false])
  expect([findSku(card, 'G'), findSku(card, 'H'), findSize(card, 'plain')?.vcpu, findSize(card, 'huge')]).toEqual([
    second,
    undefined,
    2,
    undefined,
  ])
  expect(findPrice({ ...card, prices: [first, { ...first, sku: 'later' }] }, 'cache-hour', 'here')?.sku).toBe('F')
  const inWords = (more: Partial<PriceLine>) => describeLine({ ...testCard.prices[0]!, ...more }, testCard)
  expect([inWords({}), inWords({ region: 'moon' }), inWords({ variant: null })]).toEqual([
    'test small in Here: running, hours',
    'test small in moon: running, hours',
    'test in Here: running, hours',
  ])
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
