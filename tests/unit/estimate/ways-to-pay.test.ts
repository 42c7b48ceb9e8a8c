import { expect, it } from 'vitest'
import { figureOf, nothing, overYears, paybackMonths, priceWay, type Way, type WayPrice } from '../../../core/estimate/ways-to-pay'
import { evaluate, input } from '../../../core/working/working'

const amount = (value: string | number) => input('amount', value)
const way = (years: 1 | 3 | null, more: Partial<Way> = {}): Way => ({
  way: years === null ? 'on-demand' : years === 1 ? '1 year, part in advance' : '3 years, part in advance',
  commits: null,
  years,
  recurring: [],
  fixed: [],
  upfront: nothing,
  breakEven: null,
  ...more,
})
/** A way whose upfront and months are said. */
const priced = (years: 1 | 3 | null, upfront: string | null, monthly: string, months: string[] | null = null): WayPrice =>
  priceWay(way(years), {
    upfront: upfront === null ? nothing : amount(upfront),
    monthly: amount(monthly),
    months: months && months.map(amount),
  })
const said = (working: Parameters<typeof evaluate>[0] | null) => working && evaluate(working).toFixed()

it('buys a shorter commitment again when it ends, and a longer one once', () => {
  const oneYear = priced(1, '100', '10')
  // 1 × 100 + 12 × 10; 2 × 100 + 24 × 10; 3 × 100 + 36 × 10
  expect([1, 2, 3].map(years => said(overYears(oneYear, years)))).toEqual(['220', '440', '660'])
  const threeYears = priced(3, '100', '10')
  // one purchase for up to three years, a second in the fourth
  expect([1, 3, 4].map(years => said(overYears(threeYears, years)))).toEqual(['220', '460', '680'])
  // what is paid once without a commitment is paid once
  expect(said(overYears(priced(null, '50', '10'), 3))).toBe('410')
  expect(said(overYears(priced(3, null, '10'), 3))).toBe('360')
})

it('goes on like the last month where months differ', () => {
  const months = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '10', '11', '12', '20']
  const grows = priced(null, null, '6.5', months)
  expect(said(overYears(grows, 1))).toBe('78') // 1 + … + 12
  expect(said(overYears(grows, 2))).toBe('318') // 78 + 20, then 11 × 20
  expect(said(grows.firstYear)).toBe('78')
  expect(said(grows.wholeTerm)).toBe('98')
  expect(said(figureOf(grows, 'effectiveMonthly', 2))).toBe('13.25') // 318 / 24
})

it('has paid for itself after upfront / saving months, or never', () => {
  const onDemand = priced(null, null, '30')
  const back = (upfront: string | null, monthly: string) => paybackMonths(priced(1, upfront, monthly), onDemand)?.toFixed() ?? null
  expect(back('100', '10')).toBe('5') // 100 / (30 − 10)
  expect(back('100', '29.5')).toBe('200')
  expect(back('100', '30')).toBeNull() // saves nothing
  expect(back('100', '45')).toBeNull() // costs more each month: never, not after −6.67 months
  expect(back(null, '10')).toBeNull() // nothing was paid
  expect(back('0', '10')).toBeNull()
})

it('spreads what is paid at once over the own term, and over the years that are compared', () => {
  const three = priced(3, '360', '10')
  expect(said(three.firstYear)).toBe('480') // 360 + 12 × 10
  expect(said(three.wholeTerm)).toBe('720') // 360 + 36 × 10
  expect(said(three.effectiveMonthly)).toBe('20') // 720 / 36
  expect(said(figureOf(three, 'effectiveMonthly', 1))).toBe('40') // (360 + 120) / 12
  expect(said(figureOf(three, 'wholeTerm', 1))).toBe('480')
  expect(said(figureOf(three, 'firstYear', 3))).toBe('480')
  const one = priced(1, '120', '10')
  expect(said(one.effectiveMonthly)).toBe('20') // (120 + 120) / 12
  const once = priced(null, '24', '10')
  expect([said(once.firstYear), said(once.wholeTerm), said(once.effectiveMonthly)]).toEqual(['144', null, '12'])
  const plain = priced(3, null, '10')
  expect([said(plain.firstYear), said(plain.wholeTerm), said(plain.effectiveMonthly)]).toEqual(['120', '360', '10'])
})

it('breaks even at effective monthly / on-demand hour, and nowhere where the hour is free', () => {
  const hours = (onDemandHour: string, upfront: string | null, years: 1 | 3) =>
    said(
      priceWay(
        way(years, {
          breakEven: { monthly: amount('73'), upfront: upfront === null ? nothing : amount(upfront), onDemandHour: amount(onDemandHour) },
        }),
        { upfront: upfront === null ? nothing : amount(upfront), monthly: amount('73'), months: null },
      ).breakEvenHours,
    )
  expect(hours('0.2', null, 1)).toBe('365')
  expect(hours('0.2', '12', 1)).toBe('370') // (73 + 12 / 12) / 0.2
  expect(hours('0.2', '36', 3)).toBe('370') // (73 + 36 / 36) / 0.2
  expect(hours('0', '12', 1)).toBeNull()
})
