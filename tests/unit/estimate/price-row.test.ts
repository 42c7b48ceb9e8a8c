// A row's price as it is read, line by line, with a negotiated discount, uplifts, months that differ and a support plan on top.
import { expect, it } from 'vitest'
import { priceEstimate, type Prices } from '../../../core/estimate/pricing/price-estimate'
import type { RateCard } from '../../../core/ratecard/rate-card'
import type { StoredUplift } from '../../../core/uplift/uplift-set'
import { outline } from '../../support/outline'
import { pricesOf, testCard, testEstimate, testPrices } from '../../support/test-card'

const discounts = [{ provider: 'Testcloud', percent: '10' }]
const uplift = (charges: StoredUplift['charges']): StoredUplift => ({
  ...{ id: 'u', name: 'Watching', currency: 'EUR', interval: 'month', validFrom: '2026-01-01', who: 'Ines', setAt: '' },
  charges,
  attached: [{ to: 'kind', key: 'server', variant: null }],
})
const server = (more: Record<string, string> = {}): [string, Record<string, string>] => [
  'server',
  { size: 'small', count: '1', hoursPerMonth: '730', pays: '3 years, all in advance', ...more },
]
const price = (rows: Parameters<typeof testEstimate>[0], more: Parameters<typeof testEstimate>[1] = {}, prices: Prices = testPrices) =>
  priceEstimate(testEstimate(rows, more), prices)

it('takes the negotiated discount off every amount, and says of how much', () => {
  const row = price([server()], { discounts }).rows[0]!
  expect(outline(row.chosen!.upfront)).toEqual([
    'upfront, less the negotiated discount = 122.4',
    '  upfront = 136',
    '    count = 1',
    '    upfront price each = 136 [T-server-hour-small]',
    '  share that is paid = 0.9',
    '    all = 1',
    '    negotiated discount = 0.1',
    '      percent = 10 %',
    '      of a hundred = 0.01',
  ])
  // what costs nothing has no discount; another provider's is not this one's
  expect(outline(row.chosen!.monthly)[0]).not.toContain('discount')
  const others = price([server()], { discounts: [{ provider: 'Elsewhere', percent: '50' }, ...discounts] }).rows[0]!
  expect(outline(others.chosen!.upfront)[0]).toBe('upfront, less the negotiated discount = 122.4')
  expect(outline(price([server()], { discounts: [{ provider: 'Testcloud', percent: '0' }] }).rows[0]!.chosen!.upfront)[0]).toBe(
    'upfront = 136',
  )
})

it('puts uplifts on each month, and their share on every amount', () => {
  const prices = {
    ...testPrices,
    uplifts: [
      uplift([
        { by: 'flat', label: 'watching', amount: '5' },
        { by: 'percent', label: 'risk', amount: '20' },
      ]),
    ],
  }
  const row = price([server({ pays: 'on-demand' })], {}, prices).rows[0]!
  const [head, ...parts] = outline(row.chosen!.monthly)
  // 8.468 + 20 % of it + 5
  expect(head).toMatch(/, with uplifts = 15\.1616$/)
  expect(parts).toEqual(
    expect.arrayContaining([expect.stringContaining('uplift on the amount = 1.6936'), expect.stringContaining('of a hundred = 0.01')]),
  )
  const committed = price([server()], {}, prices).rows[0]!.chosen!
  expect(outline(committed.upfront)[0]).toBe('upfront, with uplifts = 163.2') // 136 and a fifth
  expect(outline(committed.monthly)[0]).toMatch(/ = 5$/)
  // nothing upfront stays nothing
  expect(price([server({ pays: 'on-demand' })], {}, prices).rows[0]!.chosen!.upfront.label).toBe('nothing upfront')
})

const leastCard = (more: Partial<RateCard['prices'][number]>): RateCard => ({
  ...testCard,
  prices: testCard.prices.map(line => (line.meter === 'transfer-out-gb' ? { ...line, freeAllowance: undefined, ...more } : line)),
})
const notices = (card: RateCard, sentGb: string) => price([['internet-transfer', { sentGb }]], {}, pricesOf(card)).rows[0]!.notices

it('says where a minimum is charged, more than is drawn', () => {
  expect(notices(leastCard({ minimumQuantity: '100' }), '40').at(-1)).toMatch(
    /: at least 100 GB a month are charged, more than is drawn\.$/,
  )
  expect(notices(leastCard({ minimumCharge: '30' }), '40').at(-1)).toMatch(
    /: at least 30 a month is charged, more than what is drawn costs\.$/,
  )
  const plain = notices(leastCard({ minimumQuantity: '100', minimumCharge: '1' }), '400')
  expect(plain.some(text => text.includes('at least'))).toBe(false)
})

it('a support plan is a share of the month of its provider’s other rows, an upfront spread over its term', () => {
  const card: RateCard = {
    ...testCard,
    prices: [
      ...testCard.prices,
      {
        ...testCard.prices[0]!,
        sku: 'SUP',
        service: 'Support',
        meter: 'support-share',
        variant: 'hearing',
        unit: 'Share of Spend',
        tiers: [{ from: '0', price: '0.1' }],
        commitments: undefined,
      },
    ],
  }
  const support: [string, Record<string, string>] = ['support', { plan: 'hearing' }]
  const of = (rows: Parameters<typeof testEstimate>[0], more: Parameters<typeof testEstimate>[1] = {}) =>
    price(rows, more, pricesOf(card)).rows.at(-1)!
  // 136 over 36 months is 3.7778 a month, and a tenth of it the plan
  const row = of([server(), support])
  const lines = outline(row.chosen!.monthly)
  expect(lines[0]).toMatch(/ = 0\.3777777/)
  expect(lines).toEqual(
    expect.arrayContaining([
      expect.stringMatching(/^ *the month of all other rows = 3\.777/),
      expect.stringMatching(/^ *month with the upfront spread = 3\.777/),
      expect.stringMatching(/^ *upfront a month = 3\.777/),
      expect.stringMatching(/^ *months of its term = 36$/),
    ]),
  )
  // after the discount, and without rows that are left out
  expect(outline(of([server(), support], { discounts }).chosen!.monthly)[0]).toMatch(/ = 0\.34000/)
  const muted = testEstimate([server(), server({ pays: 'on-demand' }), support])
  muted.components[0]!.muted = true
  expect(outline(priceEstimate(muted, pricesOf(card)).rows.at(-1)!.chosen!.monthly)[0]).toMatch(/ = 0\.8468 /)
  expect(outline(of([support]).chosen!.monthly)[0]).toMatch(/ = 0 /)
})
