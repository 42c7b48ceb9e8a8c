import { expect, it } from 'vitest'
import {
  figureOf,
  nothing,
  overYears,
  paybackMonths,
  priceWay,
  waysOf,
  type Way,
  type WayPrice,
} from '../../../core/estimate/pricing/ways-to-pay'
import type { PriceLine } from '../../../core/ratecard/rate-card'
import { evaluate, input, type Working } from '../../../core/working/working'
import { outline } from '../../support/outline'

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

// two machines of 0.20 an hour and a licence of 0.05 an hour that is tiered; committed, a machine costs 0.10 an hour and 120 upfront for a
// year, 0.08 and nothing upfront for three; the licence can be committed to for three years only, at 0.04
const line = (sku: string, prices: string[], commitments?: PriceLine['commitments']): PriceLine => ({
  sku,
  service: 'Machines',
  meter: 'server-hour',
  variant: null,
  region: 'north',
  unit: 'Hours',
  tiering: 'graduated',
  tiers: prices.map((price, i) => ({ from: String(i * 1000), price })),
  commitments,
})
const machine = line(
  'M1',
  ['0.2'],
  [
    { years: 1, paid: 'part in advance', hourlyPrice: '0.1', upfrontPrice: '120' },
    { years: 3, paid: 'paid monthly', hourlyPrice: '0.08', upfrontPrice: '0' },
    { years: 3, paid: 'part in advance', hourlyPrice: '0.06', upfrontPrice: '240' },
  ],
)
const licence = line('L1', ['0.05', '0.04'], [{ years: 3, paid: 'paid monthly', hourlyPrice: '0.04', upfrontPrice: '0' }])
const plainLine = line('P1', ['0.01'])
const hours = (n: number) => input('unit hours', n, 'h')
const running = [
  { label: 'machines, on-demand', line: machine, quantity: hours(1460) },
  { label: 'licences, on-demand', line: licence, quantity: hours(1460) },
  { label: 'watching, on-demand', line: plainLine, quantity: hours(1460) },
]
const disk = input('disk', 5)
const choice = (commitTo: string | null, beyond: Working | null) => ({
  value: commitTo,
  label: 'base',
  parts: [
    { running: 0, count: input('machines', 2), beyond },
    { running: 1, count: input('licences', 2), beyond: null },
  ],
})
const waysHere = (beyond: Working | null = null) =>
  waysOf({ recurring: [disk], running, commitChoices: [choice('base', beyond)], unitPrice: null }, 730).map(({ make, ...offered }) => ({
    offered,
    made: make(),
  }))

it('offers each term that a line has once, and commits only what has a price for it', () => {
  const ways = waysHere()
  expect(ways.map(({ offered }) => [offered.way, offered.commits, offered.years])).toEqual([
    ['on-demand', null, null],
    ['1 year, part in advance', 'base', 1],
    ['3 years, paid monthly', 'base', 3],
    ['3 years, part in advance', 'base', 3],
  ])
  for (const { offered, made } of ways) expect(made).toMatchObject(offered)
  const [onDemand, oneYear, threeYears] = ways.map(({ made }) => made)
  expect(onDemand!.recurring).toEqual([...running, disk])
  expect([onDemand!.fixed, onDemand!.upfront, onDemand!.breakEven]).toEqual([[], nothing, null])
  // the licence has no term of one year: it goes on as it runs
  expect(oneYear!.recurring).toEqual([running[1], running[2], disk])
  expect(oneYear!.fixed.map(one => outline(one))).toEqual([
    ['machines, every hour of the month = 146', '  machines = 2', '  hours, used or not = 730 h', '  committed price = 0.1 per hour [M1]'],
  ])
  expect(outline(oneYear!.upfront)).toEqual(['upfront = 240', '  machines = 2', '  upfront price each = 120 [M1]'])
  expect(outline(oneYear!.breakEven!.onDemandHour)).toEqual([
    'on-demand, an hour of all = 0.4',
    '  machines = 2',
    '  unit price = 0.2 per hour [M1]',
  ])
  expect(threeYears!.recurring).toEqual([running[2], disk])
  expect(threeYears!.fixed.map(one => outline(one)[0])).toEqual([
    'machines, every hour of the month = 116.8',
    'licences, every hour of the month = 58.4',
  ])
  expect(threeYears!.upfront).toBe(nothing)
  expect(outline(threeYears!.breakEven!.monthly)[0]).toBe('machines, every hour of the month = 116.8')
})

it('keeps hours beyond what is committed on-demand, and sums what is paid once', () => {
  const beyond = input('hours beyond', 300, 'h')
  const [, oneYear] = waysHere(beyond).map(({ made }) => made)
  expect(oneYear!.recurring[0]).toEqual({ label: 'machines, on-demand, beyond what is committed', line: machine, quantity: beyond })
  const once = (amounts: number[]) =>
    waysOf({ recurring: [], once: amounts.map(n => input(`part ${n}`, n)), unitPrice: null }, 730)[0]!.make().upfront
  expect(outline(once([7]))).toEqual(['part 7 = 7'])
  expect(outline(once([7, 8]))).toEqual(['paid once = 15', '  part 7 = 7', '  part 8 = 8'])
  expect(once([])).toBe(nothing)
})

it('has no break-even where the price of an hour depends on how many there are', () => {
  const tiered = waysOf(
    {
      recurring: [],
      running: [running[1]!],
      commitChoices: [{ value: null, label: '', parts: [{ running: 0, count: input('licences', 2), beyond: null }] }],
      unitPrice: null,
    },
    730,
  )
  expect(tiered[1]!.make()).toMatchObject({ breakEven: null, commits: null, recurring: [] })
})

it('writes every figure out in words', () => {
  const three = priced(3, '360', '10')
  expect(outline(three.firstYear)).toEqual([
    'upfront and first 12 months = 480',
    '  amount = 360',
    '  12 months = 120',
    '    amount = 10',
    '    months a year = 12',
  ])
  const term = ['months of the term = 36', '  months a year = 12', '  years = 3']
  expect(outline(three.wholeTerm!)).toEqual([
    'upfront and whole term = 720',
    '  amount = 360',
    '  months of the term, recurring = 360',
    '    amount = 10',
    ...term.map(text => `    ${text}`),
  ])
  expect(outline(three.effectiveMonthly)).toEqual([
    'effective monthly = 20',
    ...outline(three.wholeTerm!, 1),
    ...term.map(text => `  ${text}`),
  ])
  const plain = priced(3, null, '10')
  expect(outline(plain.firstYear)).toEqual(['first 12 months = 120', '  amount = 10', '  months a year = 12'])
  expect(outline(plain.wholeTerm!)).toEqual(['whole term = 360', '  amount = 10', ...term.map(text => `  ${text}`)])
  expect(plain.effectiveMonthly).toBe(plain.monthly)
  expect(outline(priced(null, '24', '10').firstYear)[0]).toBe('paid once and first 12 months = 144')
  const months = Array.from({ length: 12 }, (_, i) => String(i + 1))
  const grows = priced(1, null, '6.5', months)
  expect(outline(grows.firstYear)).toEqual(['first 12 months = 78', ...months.map(n => `  amount = ${n}`)])
  expect(outline(grows.wholeTerm!)[0]).toBe('12 months = 78')
  // eleven months are not a year: it is reckoned from the month
  expect(outline(priced(1, null, '6.5', months.slice(1)).firstYear)).toEqual([
    'first 12 months = 78',
    '  amount = 6.5',
    '  months a year = 12',
  ])
})

it('writes out what it costs over several years', () => {
  const one = priced(1, '100', '10')
  expect(outline(overYears(one, 1))).toEqual([
    'over 1 year = 220',
    '  amount = 100',
    '  12 months = 120',
    '    amount = 10',
    '    months = 12',
  ])
  expect(outline(overYears(one, 3))).toEqual([
    'over 3 years = 660',
    '  bought again when it ends = 300',
    '    amount = 100',
    '    times = 3',
    '  36 months = 360',
    '    amount = 10',
    '    months = 36',
  ])
  expect(outline(overYears(priced(3, null, '10'), 2))).toEqual(['24 months = 240', '  amount = 10', '  months = 24'])
  const months = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '10', '11', '12']
  const grows = priced(null, null, '6.5', months)
  expect(outline(overYears(grows, 1))).toEqual(['12 months = 78', ...months.map(n => `  amount = ${n}`)])
  expect(outline(overYears(grows, 2))).toEqual([
    '24 months = 222',
    '  12 months = 78',
    ...months.map(n => `    amount = ${n}`),
    '  months like the last = 144',
    '    amount = 12',
    '    months = 12',
  ])
  expect(outline(figureOf(one, 'effectiveMonthly', 2))).toEqual([
    'effective monthly = 18.33333333333333333333',
    ...outline(overYears(one, 2), 1),
    '  months of the term = 24',
  ])
  expect(figureOf(priced(3, null, '10'), 'effectiveMonthly', 2)).toMatchObject({ label: 'amount' })
  // asked again it is the same tree, not another alike
  expect(figureOf(one, 'wholeTerm', 3)).toBe(figureOf(one, 'wholeTerm', 3))
})

it('writes out from how many hours on a commitment is cheaper', () => {
  const hours = (upfront: Working) =>
    priceWay(way(3, { breakEven: { monthly: amount('73'), upfront, onDemandHour: amount('0.2') } }), {
      upfront,
      monthly: amount('73'),
      months: null,
    }).breakEvenHours!
  expect(outline(hours(nothing))).toEqual(['break-even hours a month = 365', '  amount = 73', '  amount = 0.2'])
  expect(outline(hours(amount('36')))).toEqual([
    'break-even hours a month = 370',
    '  effective monthly of what is committed = 74',
    '    amount = 73',
    '    upfront a month = 1',
    '      amount = 36',
    '      months of the term = 36',
    '        months a year = 12',
    '        years = 3',
    '  amount = 0.2',
  ])
})
