// Hours of a named month, uplifts with a peak and from their date, effective months, credits, exchange rates. Figures by hand.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { estimateSchema, newEstimate, newRow, type Estimate } from '../../../core/estimate/estimate'
import { readEstimate, writeEstimate } from '../../../core/estimate/documents/estimate-file'
import { figureNames, figureText, priceEstimate, priceScenarios } from '../../../core/estimate/pricing/price-estimate'
import { asScenario } from '../../../core/estimate/scenarios/layer'
import { Decimal } from '../../../core/money/decimal'
import type { Rate } from '../../../core/money/rates'
import type { StoredUplift } from '../../../core/uplift/uplift-set'
import type { Working } from '../../../core/working/working'
import { demoEstimates } from '../../../demo/estimates'
import { brackwaterCard, larkfieldCard } from '../../../demo/rate-cards'
import { pricesOf, testCard, testEstimate, testPrices } from '../../support/test-card'

const set = (more: Partial<StoredUplift>): StoredUplift => ({
  id: 'x',
  name: 'Care',
  currency: 'EUR',
  interval: 'hour',
  validFrom: '2026-01-01',
  who: 'Ines',
  setAt: '2026-01-01T00:00:00Z',
  attached: [{ to: 'kind', key: 'server', variant: null }],
  charges: [{ by: 'flat', label: 'care', amount: '0.10' }],
  ...more,
})
const monthly = (estimate: Estimate, prices = testPrices, scenario = null as null | ReturnType<typeof asScenario>) =>
  figureText(priceEstimate(estimate, prices, scenario).total.monthly)

describe('always on means all hours of the month chosen', () => {
  const hourly = testEstimate([
    ['server', { size: 'plain' }],
    ['server', { size: 'small', pays: '1 year, paid monthly' }],
    ['free-form', { amount: '1', interval: 'an hour' }],
  ])
  it.each([
    [null, 730],
    ['2026-02', 672],
    ['2028-02', 696],
    ['2026-11', 720],
    ['2026-10', 744],
  ] as const)('%s has %d hours: for rows, commitments, uplifts and kinds without an hours field', (month, hours) => {
    // 0.028 on-demand + 0.0073 committed + 1 + uplifts of 0.1 on two servers
    const expected = new Decimal(hours).times('1.2353')
    expect(monthly({ ...hourly, month }, { ...testPrices, uplifts: [set({})] })).toBe(expected.toFixed())
    // what begins without an hours field of its own is there all hours too
    const disk = testEstimate([['disk', { class: 'plain', storageGb: '100' }]], { month })
    expect(monthly(disk, { ...testPrices, uplifts: [set({ attached: [{ to: 'kind', key: 'disk', variant: null }] })] })).toBe(
      new Decimal(8).plus(new Decimal(hours).times('0.1')).toFixed(),
    )
  })
  it('choosing a month makes no default invalid, in any kind of component', () => {
    for (const month of ['2026-02', '2028-02', '2026-11', '2026-12']) {
      for (const { states } of demoEstimates) {
        const e = estimateSchema.parse(states.at(-1)!.estimate)
        expect(
          priceEstimate({ ...e, month }, { ...pricesOf(brackwaterCard, larkfieldCard), rates: [] }).unpriced,
          `${e.name} in ${month}`,
        ).toBe(0)
      }
    }
  })
  it('says what would do for hours that the month does not have', () => {
    const row = priceEstimate(testEstimate([['server', { size: 'plain', hoursPerMonth: '730' }]], { month: '2026-02' }), testPrices)
      .rows[0]!
    expect(row.problems.hoursPerMonth).toContain('from 0 to 672 h')
    expect(row.refusal!.instead).toEqual({ value: 'always on', label: 'make it always on' })
  })
})

describe('uplifts', () => {
  const peak = (more: Record<string, string> = {}) =>
    testEstimate([['server', { size: 'plain', count: '1', peakCount: '3', peakHours: '5d x 10h', ...more }]])
  const own = (estimate: Estimate, sets: StoredUplift[]) =>
    Number(new Decimal(monthly(estimate, { ...testPrices, uplifts: sets })).minus(monthly(estimate)).toFixed(10))
  it('by the hour are borne for the hours of base and peak: 73.00 + 65.18', () => {
    expect(own(peak(), [set({})])).toBeCloseTo(73 + ((3 * 730 * 50) / 168) * 0.1, 8)
    expect((((3 * 730 * 50) / 168) * 0.1).toFixed(2)).toBe('65.18')
    // by the vCPU too: plain has 2, at 0.01 an hour
    expect(own(peak(), [set({ charges: [{ by: 'unit', label: 'v', amount: '0.01', unit: 'vCPU' }] })])).toBeCloseTo(
      2 * (730 + (3 * 730 * 50) / 168) * 0.01,
      8,
    )
    // a month's charge is for each machine, the peak's among them
    expect(own(peak(), [set({ interval: 'month', charges: [{ by: 'flat', label: 'm', amount: '5' }] })])).toBeCloseTo(20, 8)
  })
  it('hold from their date: an estimate that begins before does not bear them', () => {
    const dated = set({ validFrom: '2026-07-01' })
    const at = (more: Partial<Estimate>) => own({ ...peak(), ...more }, [dated]) > 0
    expect([
      at({ startsOn: '2026-06-30' }),
      at({ startsOn: '2026-07-01' }),
      at({ startsOn: null }),
      at({ month: '2026-06' }),
      at({ month: '2026-07' }),
      at({ month: '2026-07', startsOn: '2026-01-01' }),
    ]).toEqual([false, true, true, false, true, true])
  })
  it('sit on a system or an image too', () => {
    const card = {
      ...testCard,
      prices: [
        ...testCard.prices,
        {
          sku: 'T-sys',
          service: 's',
          meter: 'system-vcpu-hour',
          variant: 'Licensed',
          region: 'here',
          unit: 'vCPU-Hours' as const,
          tiering: 'graduated' as const,
          tiers: [{ from: '0', price: '0' }],
        },
      ],
    }
    const prices = {
      ...pricesOf(card),
      uplifts: [
        set({ attached: [{ to: 'system', key: 'Licensed', variant: null }] }),
        set({
          id: 'y',
          attached: [{ to: 'image', key: 'web-2026', variant: null }],
          charges: [{ by: 'flat', label: 'i', amount: '1' }],
          interval: 'month',
        }),
      ],
    }
    const of = (inputs: Record<string, string>) =>
      new Decimal(monthly(testEstimate([['server', { size: 'plain', ...inputs }]]), prices)).minus('20.44').toFixed()
    expect([
      of({}),
      of({ system: 'Licensed' }),
      of({ image: 'web-2026' }),
      of({ image: 'constructor' }),
      of({ system: 'Licensed', image: 'web-2026' }),
    ]).toEqual(['0', '73', '1', '0', '74'])
  })
})

describe('effective monthly is the whole term divided by its months', () => {
  const once = testEstimate([
    ['free-form', { amount: '1200', interval: 'once' }],
    ['server', { size: 'plain' }],
  ])
  it('spreads what is paid once over the term of the estimate, the same in all columns', () => {
    const e = {
      ...once,
      scenarios: [asScenario({ whole: { pays: '3 years, all in advance' } }, 'far')],
      components: [...once.components, newRow('s', 'p', 'server', { size: 'small' })],
    }
    const [base, committed] = priceScenarios(e, testPrices) as [ReturnType<typeof priceEstimate>, ReturnType<typeof priceEstimate>]
    expect([base.termYears, committed.termYears]).toEqual([3, 3])
    // (1,200 + 36 × (20.44 + 8.468)) / 36 and (1,200 + 136 + 36 × 20.44) / 36
    expect(figureText(base.total.wholeTerm)).toBe('2240.688')
    expect(Number(figureText(base.total.effectiveMonthly))).toBeCloseTo(2240.688 / 36, 12)
    expect(figureText(committed.total.wholeTerm)).toBe('2071.84')
    expect(Number(figureText(committed.total.effectiveMonthly))).toBeCloseTo(2071.84 / 36, 12)
    expect(Number(figureText(priceEstimate(once, testPrices).total.effectiveMonthly))).toBeCloseTo(100 + 20.44, 12)
    expect(Number(figureText(priceEstimate({ ...once, termYears: 5 }, testPrices).total.effectiveMonthly))).toBeCloseTo(20 + 20.44, 12)
  })
  it('tells each way to pay over its own term: 136 for three years are 3.78 a month', () => {
    const { ways } = priceEstimate(testEstimate([['server', { size: 'small' }]]), testPrices).rows[0]!
    expect(ways.map(way => [way.way, new Decimal(figureText(way.effectiveMonthly)).round(2).toFixed()])).toEqual([
      ['on-demand', '8.47'],
      ['3 years, all in advance', '3.78'],
      ['1 year, paid monthly', '5.33'],
    ])
  })
  it('is the quotient of just these two trees, for every row, step and total', () => {
    const kinds = fc.oneof(
      fc
        .constantFrom('on-demand', '3 years, all in advance', '1 year, paid monthly')
        .map(pays => ['server', { size: 'small', pays }] as [string, Record<string, string>]),
      fc
        .integer({ min: 1, max: 9999 })
        .map(n => ['free-form', { amount: String(n), interval: 'once' }] as [string, Record<string, string>]),
      fc
        .integer({ min: 1, max: 40 })
        .map(n => ['object-archive', { class: 'ready', arrivesGb: '70', horizon: String(n) }] as [string, Record<string, string>]),
      fc.constant(['disk', { class: 'plain' }] as [string, Record<string, string>]),
    )
    const credit = fc.record({
      label: fc.constant('c'),
      amount: fc.integer({ min: 1, max: 9 }).map(String),
      threshold: fc.constantFrom('0', '5'),
      fromMonth: fc.integer({ min: 1, max: 20 }),
      months: fc.integer({ min: 1, max: 60 }),
    })
    fc.assert(
      fc.property(
        fc.array(kinds, { minLength: 1, maxLength: 5 }),
        fc.constantFrom(null, 1, 2, 5),
        fc.array(credit, { maxLength: 2 }),
        fc.constantFrom('0', '20'),
        fc.constantFrom('0', '21'),
        (rows, termYears, funding, marginPercent, taxPercent) => {
          const priced = priceEstimate(testEstimate(rows, { termYears, funding, marginPercent, taxPercent }), testPrices)
          const months = 12 * priced.termYears
          const holds = (effective: Working, whole: Working) => {
            if (effective.op === 'quotient' && effective.label === 'effective monthly') {
              expect(effective.parts[0]).toBe(whole)
              expect(figureText(effective.parts[1]!)).toBe(String(months))
            }
            // where nothing is paid at once no division is made: the month times its months is the term
            else expect(new Decimal(figureText(effective)).times(months).minus(figureText(whole)).abs().lt('1e-15')).toBe(true)
          }
          holds(priced.total.effectiveMonthly, priced.total.wholeTerm)
          for (const step of priced.steps) holds(step.figures.effectiveMonthly, step.figures.wholeTerm)
          const sums = figureNames.map(
            name =>
              [
                name,
                priced.steps.reduce((n, s) => n.plus(figureText(s.figures[name])), new Decimal(figureText(priced.cost[name]))),
              ] as const,
          )
          for (const [name, sum] of sums) expect(sum.minus(figureText(priced.total[name])).abs().lt('1e-12'), name).toBe(true)
        },
      ),
    )
  })
  it('names the months of a credit: 30 in months 4 to 9 of a month of 100 over two years', () => {
    const e = testEstimate([['free-form', { amount: '100' }]], {
      termYears: 2,
      funding: [{ label: 'start', amount: '30', threshold: '0', fromMonth: 4, months: 6 }],
    })
    const priced = priceEstimate(e, testPrices)
    expect(priced.steps.map(s => s.label)).toEqual(['start, months 4 to 9'])
    expect(figureNames.map(name => figureText(priced.total[name]))).toEqual(['0', '100', '92.5', '1020', '2220'])
    const late = priceEstimate({ ...e, funding: [{ ...e.funding[0]!, fromMonth: 22, months: 12 }] }, testPrices)
    expect(figureText(late.total.wholeTerm)).toBe('2310') // months 22, 23 and 24
    // a threshold by amount
    expect(priceEstimate({ ...e, funding: [{ ...e.funding[0]!, threshold: '100.01' }] }, testPrices).steps).toEqual([])
  })
})

describe('exchange rates', () => {
  const card = { ...testCard, provider: 'Far', currency: 'USD' }
  const rates: Rate[] = [
    { from: 'USD', to: 'EUR', validFrom: '2026-01-01', rate: '0.8' },
    { from: 'USD', to: 'EUR', validFrom: '2026-11-01', rate: '0.9' },
  ]
  const prices = { ...pricesOf(card), rates }
  const e: Estimate = {
    ...newEstimate('t', card, 'here'),
    currency: 'EUR',
    components: [newRow('a', 'p', 'disk', { class: 'plain', storageGb: '100' })],
  }
  it('are the dated ones of Sources that hold when the estimate begins, the newest where nobody has said', () => {
    const at = (more: Partial<Estimate>) => monthly({ ...e, ...more }, prices)
    expect([at({}), at({ startsOn: '2026-10-31' }), at({ startsOn: '2026-11-01' }), at({ month: '2026-03' })]).toEqual([
      '7.2',
      '6.4',
      '7.2',
      '6.4',
    ])
    // one for this estimate alone comes first
    expect(at({ rates: [{ from: 'USD', rate: '0.5', day: '2026-11-05' }] })).toBe('4')
  })
  it('are never invented: the pair that is really missing is named, also where uplifts need it', () => {
    const early = priceEstimate({ ...e, startsOn: '2025-12-31' }, prices).rows[0]!
    expect(early.problems.where).toContain('no rate from USD to EUR that holds on 31 Dec 2025')
    expect(early.refusal!.give).toEqual({ rate: 'USD', to: 'EUR' })
    const own = priceEstimate(
      { ...e, rates: [] },
      { ...prices, uplifts: [set({ currency: 'NOK', interval: 'month', attached: [{ to: 'kind', key: 'disk', variant: null }] })] },
    ).rows[0]!
    expect(own.problems.where).toContain('no rate from NOK to EUR, which the uplifts «Care» are in')
    expect(own.refusal!.give!.rate).toBe('NOK')
  })
})

it('reads the second format on: words, hours, fleets, credits, cards; the figures stay', () => {
  const old = {
    format: 'rain-barrel estimate 2',
    name: 'old',
    note: '',
    currency: 'EUR',
    provider: 'Brackwater Cloud',
    region: 'low-coast',
    cards: [{ provider: 'Brackwater Cloud', date: '2025-11-01' }],
    rates: [],
    month: null,
    termYears: null,
    target: null,
    useFreeAllowance: false,
    discounts: [],
    funding: [{ label: 'c', amount: '1', threshold: '0', months: 6 }],
    marginPercent: '0',
    taxPercent: '0',
    dismissed: [],
    seed: 1,
    components: [
      {
        id: 'a',
        part: 'p',
        kind: 'server',
        inputs: { size: 'otter-4x16', hoursPerMonth: '730', pays: '1 year, none upfront' },
        confirmed: ['size', 'hoursPerMonth'],
        note: '',
        muted: false,
        pattern: null,
      },
      {
        id: 'b',
        part: 'p',
        kind: 'desktop-fleet',
        inputs: { shape: 'pooled', users: '120', size: 'otter-8x32', heaviness: 'medium', hoursPerMonth: '5d x 10h' },
        confirmed: ['heaviness'],
        note: '',
        muted: false,
        pattern: null,
      },
    ],
    scenarios: [{ id: 's', name: 'all', whole: { pays: '3 years, all upfront' }, rows: { b: { heaviness: 'heavy' } } }],
  }
  const read = readEstimate(JSON.stringify(old))
  if (!('estimate' in read)) throw new Error(read.problems.join())
  const { estimate } = read
  expect(estimate).toMatchObject({
    format: 'rain-barrel estimate 3',
    startsOn: null,
    cards: [{ provider: 'Brackwater Cloud', date: '2025-11-01', revision: 1 }],
    funding: [{ fromMonth: 1 }],
  })
  expect(estimate.components[0]).toMatchObject({ name: '', inputs: { hoursPerMonth: 'always on', pays: '1 year, paid monthly' } })
  expect(estimate.components[1]).toMatchObject({
    inputs: { shape: 'shared machines', work: 'usual', usersPerVcpu: '4' },
    confirmed: ['work'],
  })
  expect(estimate.components[1]!.inputs.heaviness).toBeUndefined()
  expect(estimate.scenarios[0]).toMatchObject({
    whole: { pays: '3 years, all in advance' },
    rows: { b: { work: 'much', usersPerVcpu: '2' } },
    conditions: [],
  })
  // 96 sessions on machines of 8 × 4: three in busy hours, one in quiet ones, as the second format had it
  const facts = priceEstimate(estimate, pricesOf(brackwaterCard)).byId.get('b')!.charges!.facts!
  expect(facts.slice(0, 2).map(f => figureText(f.working))).toEqual(['3', '1'])
  expect(readEstimate(writeEstimate(estimate))).toEqual({ estimate })
})

it.each(['100', '100.0', '100.00', '1e2'])('refuses a margin of %s', marginPercent => {
  expect(estimateSchema.safeParse({ ...testEstimate([]), marginPercent }).success).toBe(false)
  expect(estimateSchema.safeParse({ ...testEstimate([]), marginPercent: '99.9' }).success).toBe(true)
})
