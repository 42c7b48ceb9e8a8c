import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { searchKinds } from '../../../core/estimate/adding/find-components'
import { componentKinds, findKind, isOffered } from '../../../core/estimate/components'
import { fieldProblem } from '../../../core/estimate/components/field'
import { completeInputs, usualInputs } from '../../../core/estimate/components/kind'
import { newEstimate, type Estimate } from '../../../core/estimate/estimate'
import { readEstimate, writeEstimate } from '../../../core/estimate/documents/estimate-file'
import { figureNames, figureOf, figureText, priceEstimate, priceScenarios } from '../../../core/estimate/pricing/price-estimate'
import { PriceMemo } from '../../../core/estimate/pricing/price-memo'
import { paybackMonths } from '../../../core/estimate/pricing/ways-to-pay'
import { Decimal } from '../../../core/money/decimal'
import type { Working } from '../../../core/working/working'
import { brackwaterCard, larkfieldCard, pierHouseCard } from '../../../demo/rate-cards'
import { pricesOf, priceTest, testCard, testEstimate, testPrices, testRows } from '../../support/test-card'

const number = (max: number) => fc.integer({ min: 0, max }).map(String)
const component = fc.oneof(
  fc
    .record({
      hoursPerMonth: number(730),
      count: number(50),
      pays: fc.constantFrom('on-demand', '3 years, all in advance', '1 year, paid monthly'),
    })
    .map(inputs => ['server', { size: 'small', ...inputs }] as [string, Record<string, string>]),
  fc
    .record({ storageGb: number(60_000).map(n => String(Number(n) + 1)), count: number(20) })
    .map(inputs => ['disk', { class: 'plain', ...inputs }] as [string, Record<string, string>]),
  fc
    .record({ storageGb: number(90_000), writes: number(1_000_000), reads: number(1_000_000) })
    .map(inputs => ['object-storage', { class: 'ready', ...inputs }] as [string, Record<string, string>]),
  number(50_000).map(sentGb => ['internet-transfer', { sentGb }] as [string, Record<string, string>]),
)
const estimate = fc
  .record({
    components: fc.array(component, { maxLength: 8 }),
    useFreeAllowance: fc.boolean(),
    discount: fc.constantFrom('0', '12.5'),
    taxPercent: fc.constantFrom('0', '25'),
    marginPercent: fc.constantFrom('0', '20'),
  })
  .map(({ components, discount, ...more }) =>
    testEstimate(components, { ...more, discounts: discount === '0' ? [] : [{ provider: 'Testcloud', percent: discount }] }),
  )

it('totals are the sum of the rows, margin and tax on top; each is a tree that evaluates to it', () => {
  fc.assert(
    fc.property(estimate, e => {
      const { priced, totals, unpriced } = priceTest(e)
      expect(unpriced).toBe(0)
      for (const name of ['upfront', 'monthly', 'effectiveMonthly', 'firstYear'] as const) {
        const rows = priced.rows.reduce((n, row) => n.plus(figureText(figureOf(row.chosen!, name, priced.termYears))), new Decimal(0))
        // an effective month is a quotient, cut at twenty decimals for each row and once for their sum; all other sums are exact
        if (name === 'effectiveMonthly') expect(rows.minus(figureText(priced.cost[name])).abs().lte('1e-18')).toBe(true)
        else expect(figureText(priced.cost[name])).toBe(rows.eq(0) ? '0' : rows.toFixed())
        const customer = rows.div(new Decimal(1).minus(new Decimal(e.marginPercent).times('0.01')))
        expect(
          new Decimal(totals[name])
            .minus(customer.times(new Decimal(e.taxPercent).times('0.01').plus(1)))
            .abs()
            .lt('1e-12'),
        ).toBe(true)
      }
    }),
  )
})

it('costs more for more of anything', () => {
  fc.assert(
    fc.property(component, ([kind, inputs]) => {
      const cost = (i: Record<string, string>) => new Decimal(priceTest(testEstimate([[kind, i]])).totals.effectiveMonthly)
      for (const field of findKind(kind)!.fields) {
        if (field.type !== 'number' || inputs[field.name] === undefined || Number(inputs[field.name]) >= field.max) continue
        expect(cost({ ...inputs, [field.name]: String(Number(inputs[field.name]) + 1) }).gte(cost(inputs))).toBe(true)
      }
    }),
  )
})

it('goes out as JSON and comes in identical', () => {
  fc.assert(
    fc.property(estimate, e => {
      const file = writeEstimate(e)
      const back = readEstimate(file)
      expect(back).toEqual({ estimate: e })
      // however the database has ordered the inputs meanwhile
      const shuffled = structuredClone(e)
      for (const c of shuffled.components) c.inputs = Object.fromEntries(Object.entries(c.inputs).reverse())
      expect(writeEstimate(shuffled)).toBe(file)
    }),
  )
})

it('reads the first version of the format, with its one card and one discount', () => {
  const old = {
    format: 'rain-barrel estimate 1',
    name: 'old',
    provider: 'Testcloud',
    rateCardDate: '2026-01-01',
    region: 'here',
    target: '5',
    useFreeAllowance: false,
    discountPercent: '10',
    taxPercent: '0',
    components: [{ id: 'a', part: 'p', kind: 'disk', inputs: { class: 'plain', storageGb: '100', count: '1' }, confirmed: ['class'] }],
    dismissed: [],
  }
  const read = readEstimate(JSON.stringify(old))
  if (!('estimate' in read)) throw new Error(read.problems.join())
  expect(read.estimate).toMatchObject({
    format: 'rain-barrel estimate 3',
    cards: [{ provider: 'Testcloud', date: '2026-01-01', revision: 1 }],
    discounts: [{ provider: 'Testcloud', percent: '10' }],
  })
  expect(priceTest(read.estimate).totals.monthly).toBe('7.2')
})

it('says why a file is no estimate', () => {
  expect(readEstimate('{')).toEqual({ problems: ['it is not a JSON document'] })
  expect(readEstimate('[]')).toEqual({ problems: [expect.stringContaining('the file')] })
  expect(readEstimate(JSON.stringify({ ...testEstimate([]), taxPercent: '101' }))).toEqual({
    problems: ['taxPercent: a percentage from 0 to 100'],
  })
})

it('puts every way to pay side by side', () => {
  const { ways } = priceTest(testEstimate([['server', { size: 'steady', count: '2', hoursPerMonth: '220', pays: 'on-demand' }]]))
    .components[0]!
  const [onDemand, allUpfront, noneUpfront] = ways
  expect(onDemand).toMatchObject({
    way: 'on-demand',
    upfront: '0',
    monthly: '5394.4',
    effectiveMonthly: '5394.4',
    firstYear: '64732.8',
    wholeTerm: null,
    breakEvenHours: null,
  })
  expect(allUpfront).toMatchObject({ way: '3 years, all in advance', upfront: '4000', monthly: '0', firstYear: '4000', wholeTerm: '4000' })
  // a commitment is charged for all 730 hours: at 220 hours it costs more than on-demand
  expect(noneUpfront).toMatchObject({
    way: '1 year, paid monthly',
    upfront: '0',
    monthly: '11198.2',
    effectiveMonthly: '11198.2',
    firstYear: '134378.4',
    wholeTerm: '134378.4',
  })
  expect(new Decimal(noneUpfront!.breakEvenHours!).round(0).toFixed()).toBe('457')
  expect(paybackMonths(allUpfront!.workings, onDemand!.workings)!.round(4).toFixed()).toBe('0.7415')
  expect(paybackMonths(noneUpfront!.workings, onDemand!.workings)).toBeNull()
})

it('breaks even where both prices meet', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 40 }), count => {
      const { ways } = priceTest(
        testEstimate([['server', { size: 'small', count: String(count), hoursPerMonth: '730', pays: 'on-demand' }]]),
      ).components[0]!
      for (const way of ways.slice(1)) {
        const onDemandAtBreakEven = new Decimal(way.breakEvenHours!).times('0.0116').times(count)
        expect(onDemandAtBreakEven.minus(way.effectiveMonthly).abs().lt('1e-12')).toBe(true)
      }
    }),
  )
})

it('takes the discount off the list price and puts the tax on the end', () => {
  const { totals } = priceTest(
    testEstimate([['disk', { class: 'plain', storageGb: '100', count: '1' }]], {
      discounts: [{ provider: 'Testcloud', percent: '10' }],
      taxPercent: '25',
    }),
  )
  expect(totals.monthly).toBe('9')
})

it('shares the free allowance among rows, and only when asked to', () => {
  const rows: [string, Record<string, string>][] = [
    ['internet-transfer', { sentGb: '60' }],
    ['internet-transfer', { sentGb: '60' }],
  ]
  const monthly = (useFreeAllowance: boolean) => priceTest(testEstimate(rows, { useFreeAllowance })).components.map(c => c.chosen!.monthly)
  expect(monthly(false)).toEqual(['5.4', '5.4'])
  // 120 GB less 100 free: 1.8 for both, who draw alike
  expect(monthly(true)).toEqual(['0.9', '0.9'])
})

it('says what does not fit, and counts such a row as nothing', () => {
  const priced = priceTest(
    testEstimate([
      ['server', { size: 'small', count: '1.5' }],
      ['disk', { class: 'gold' }],
      ['teleport', {}],
      ['internet-transfer', { sentGb: '-1' }],
      ['server', { size: 'small', hoursPerMonth: '800' }],
    ]),
  )
  expect(priced.unpriced).toBe(5)
  expect(priced.components.map(c => Object.values(c.problems)[0])).toEqual([
    'count must be a whole number',
    expect.stringContaining('«gold» is not offered by Testcloud'),
    expect.stringContaining('teleport'),
    expect.stringContaining('must be from 0'),
    expect.stringContaining('must be from 0 to 730 h'),
  ])
  expect(priced.totals.monthly).toBe('0')
})

it('every kind that a card offers starts with inputs that fit and can be priced, in every region', () => {
  const cards = [brackwaterCard, larkfieldCard, pierHouseCard]
  const offered = new Set<string>()
  for (const card of cards) {
    for (const { id } of card.regions) {
      for (const kind of componentKinds.filter(k => isOffered(k, card, id))) {
        offered.add(`${card.provider} ${kind.kind}`)
        const inputs = completeInputs(kind, usualInputs(kind, card, id), card, id)
        const chosen = kind.kind === 'metered' ? { ...inputs, sku: card.prices.find(p => p.region === id)!.sku } : inputs
        const problems = kind.fields.map(field => fieldProblem(field, chosen[field.name]!, card, id))
        expect(problems.filter(Boolean), `${kind.kind} in ${id}`).toEqual([])
        expect(completeInputs(kind, {}, card, id)).toEqual(inputs)
        const priced = priceEstimate({ ...newEstimate('x', card, id), components: testRows([[kind.kind, {}]]) }, pricesOf(card))
        // a metered line has no line until someone chooses one: none is chosen for anyone
        expect(Object.keys(priced.rows[0]!.problems), `${kind.kind} in ${id}`).toEqual(kind.kind === 'metered' ? ['sku'] : [])
      }
    }
  }
  // both clouds have all of them
  for (const card of [brackwaterCard, larkfieldCard])
    for (const kind of componentKinds) expect(offered.has(`${card.provider} ${kind.kind}`), `${card.provider} ${kind.kind}`).toBe(true)
})

it('finds components by plain words', () => {
  expect(searchKinds('outgoing traffic')[0]?.kind).toBe('internet-transfer')
  expect(searchKinds('disk')[0]?.kind).toBe('disk')
  expect(searchKinds('bucket')[0]?.kind).toBe('object-storage')
  expect(searchKinds('relational database')[0]?.kind).toBe('database')
  for (const kind of componentKinds)
    for (const word of kind.words)
      expect(
        searchKinds(word).map(k => k.kind),
        word,
      ).toContain(kind.kind)
  expect(searchKinds('spaceship')).toEqual([])
  expect(searchKinds('')).toHaveLength(componentKinds.length)
})

it('has no rate in its Workings that is not on the card', () => {
  const sources = (w: Working): string[] =>
    w.op === 'input' ? (w.source ? [w.source] : []) : [...(w.op === 'tiered' ? [w.source] : []), ...w.parts.flatMap(sources)]
  const { ways } = priceTest(testEstimate([['server', { size: 'small', count: '1', hoursPerMonth: '730', pays: 'on-demand' }]]))
    .components[0]!
  for (const way of ways) expect(sources(way.workings.effectiveMonthly).every(s => testCard.prices.some(p => p.sku === s))).toBe(true)
})

describe('after an edit only what depends on it is priced again', () => {
  const cards = pricesOf(brackwaterCard)
  const row = fc.oneof(
    fc
      .record({ count: number(9), hoursPerMonth: number(700), pays: fc.constantFrom('on-demand', '1 year, paid monthly') })
      .map(i => ['server', { size: 'otter-2x8', ...i }] as [string, Record<string, string>]),
    number(20_000).map(sentGb => ['internet-transfer', { sentGb }] as [string, Record<string, string>]),
    number(90_000).map(storageGb => ['object-storage', { class: 'ready', storageGb }] as [string, Record<string, string>]),
    fc.constantFrom('hearing', 'listening').map(plan => ['support', { plan }] as [string, Record<string, string>]),
  )
  it('and gives what pricing everything anew gives', () => {
    fc.assert(
      fc.property(
        fc.array(row, { minLength: 2, maxLength: 7 }),
        fc.array(fc.record({ at: fc.nat(6), to: row, muted: fc.boolean(), drop: fc.boolean(), allowance: fc.boolean() }), { maxLength: 6 }),
        (rows, edits) => {
          let e: Estimate = {
            ...newEstimate('x', brackwaterCard, 'low-coast'),
            components: testRows(rows),
            scenarios: [
              {
                id: 's',
                name: 's',
                whole: { where: 'far-cape', pays: '1 year, paid monthly' },
                rows: { c0: { count: '3' } },
                conditions: [],
              },
            ],
          }
          const memo = new PriceMemo()
          for (const { at, to, muted, drop, allowance } of [
            { at: 0, to: rows[0]!, muted: false, drop: false, allowance: false },
            ...edits,
          ]) {
            const i = at % e.components.length
            const components =
              drop && e.components.length > 1
                ? e.components.toSpliced(i, 1)
                : e.components.map((c, j) => (j === i ? { ...c, kind: to[0], inputs: to[1], muted } : c))
            e = { ...e, components, useFreeAllowance: allowance }
            const [again, anew] = [priceScenarios(e, cards, memo), priceScenarios(e, cards)]
            again.forEach((priced, s) => {
              for (const name of figureNames) expect(figureText(priced.total[name])).toBe(figureText(anew[s]!.total[name]))
              expect(priced.rows.map(r => r.problems)).toEqual(anew[s]!.rows.map(r => r.problems))
            })
          }
        },
      ),
      { numRuns: 60 },
    )
  })
  it('and leaves the other rows alone', () => {
    const e = {
      ...newEstimate('x', brackwaterCard, 'low-coast'),
      components: testRows([
        ['server', {}],
        ['disk', {}],
        ['internet-transfer', { sentGb: '100' }],
      ]),
    }
    const memo = new PriceMemo()
    const before = priceEstimate(e, cards, null, memo)
    const after = priceEstimate(
      { ...e, components: e.components.map(c => (c.kind === 'disk' ? { ...c, inputs: { storageGb: '200' } } : c)) },
      cards,
      null,
      memo,
    )
    expect(after.rows.map((r, i) => r === before.rows[i])).toEqual([true, false, true])
  })
})

it('a scenario without an override equals its base, and one over a longer commitment is compared over the same years', () => {
  fc.assert(
    fc.property(estimate, e => {
      const [base, same] = priceScenarios({ ...e, scenarios: [{ id: 's', name: 'same', whole: {}, rows: {}, conditions: [] }] }, testPrices)
      for (const name of figureNames) expect(figureText(same!.total[name])).toBe(figureText(base!.total[name]))
    }),
  )
  const servers = testEstimate([['server', { size: 'small', count: '2', hoursPerMonth: '730', pays: 'on-demand' }]], {
    scenarios: [{ id: 's', name: 'three years', whole: { pays: '3 years, all in advance' }, rows: {}, conditions: [] }],
  })
  const [base, committed] = priceScenarios(servers, testPrices)
  expect([base!.termYears, committed!.termYears]).toEqual([3, 3])
  expect(figureText(base!.total.wholeTerm)).toBe(new Decimal('0.0116').times(730 * 2 * 36).toFixed())
  expect(figureText(committed!.total.wholeTerm)).toBe('272')
})

it('takes each step of a price in its order: list, discount, uplift, conversion, support, margin, tax', () => {
  // 100 GB at 0.08 = 8; less 10 % = 7.2; uplifts of 5 % and 2 = 9.56; at 2 = 19.12; support 10 % of 7.2 = 0.72, at 2 = 1.44; sum 20.56;
  // margin of 20 % = 25.7; tax of 25 % = 32.125
  const card = {
    ...testCard,
    currency: 'USD',
    prices: [
      ...testCard.prices,
      {
        sku: 'T-support',
        service: 'support',
        meter: 'support-share',
        variant: 'plan',
        region: 'here',
        unit: 'Share of Spend' as const,
        tiering: 'graduated' as const,
        tiers: [{ from: '0', price: '0.1' }],
      },
    ],
  }
  const set = {
    id: 'u',
    name: 'handling',
    currency: 'USD',
    interval: 'month' as const,
    charges: [
      { by: 'percent' as const, label: 'handling', amount: '5' },
      { by: 'flat' as const, label: 'watch', amount: '2' },
    ],
    attached: [{ to: 'kind' as const, key: 'disk', variant: null }],
    validFrom: '2026-01-01',
    who: 'Ines Moldal',
    setAt: '2026-01-01',
  }
  const e = testEstimate(
    [
      ['support', { plan: 'plan' }],
      ['disk', { class: 'plain', storageGb: '100', count: '1' }],
    ],
    {
      currency: 'EUR',
      rates: [{ from: 'USD', rate: '2', day: '2026-11-01' }],
      discounts: [{ provider: 'Testcloud', percent: '10' }],
      marginPercent: '20',
      taxPercent: '25',
    },
  )
  const { priced, totals, components } = priceTest(e, { ...pricesOf(card), uplifts: [set] })
  expect(components.map(c => c.chosen!.monthly)).toEqual(['1.44', '19.12'])
  expect(figureText(priced.cost.monthly)).toBe('20.56')
  expect(priced.steps.map(s => [s.kind, figureText(s.figures.monthly)])).toEqual([
    ['margin', '5.14'],
    ['tax', '6.425'],
  ])
  expect(totals.monthly).toBe('32.125')
  // without a rate it is said, never guessed
  expect(priceTest({ ...e, rates: [] }, pricesOf(card)).components[1]!.problems.where).toContain('no rate from USD to EUR')
})

it("takes the larger of a support plan's least charge and its graduated share, of the same provider's rows only", () => {
  const plan = (quantity: string) =>
    priceTest(
      {
        ...newEstimate('x', brackwaterCard, 'north-fjord'),
        components: testRows([
          ['support', { plan: 'listening' }],
          ['metered', { sku: 'BW-NORTHFJORD-DISKGBMONTH-STEADY', quantity }],
          ['free-form', { amount: '1000000' }],
        ]),
      },
      pricesOf(brackwaterCard),
    ).components[0]!.chosen!.monthly
  const gb = (spend: number) => String(spend / 0.088)
  expect(plan(gb(88))).toBe('95') // 9 % of 88 is less
  expect(plan(gb(8800))).toBe('792')
  expect(Number(plan(gb(22_000)))).toBeCloseTo(900 + 12_000 * 0.065, 6)
  expect(Number(plan(gb(110_000)))).toBeCloseTo(900 + 70_000 * 0.065 + 30_000 * 0.045, 6)
})

it('funding lowers the total while the month costs at least its threshold', () => {
  const e = (threshold: string) =>
    testEstimate([['free-form', { amount: '100' }]], {
      funding: [{ label: 'starter credit', amount: '30', threshold, fromMonth: 1, months: 6 }],
    })
  expect(priceTest(e('80')).totals).toMatchObject({ monthly: '70', firstYear: String(1200 - 180) })
  expect(priceTest(e('101')).totals).toMatchObject({ monthly: '100', firstYear: '1200' })
  expect(
    priceTest(
      testEstimate([['free-form', { amount: '20' }]], {
        funding: [{ label: 'c', amount: '30', threshold: '0', fromMonth: 1, months: 12 }],
      }),
    ).totals.monthly,
  ).toBe('0')
})

it('a row that is muted is priced, but neither counted nor drawing from what others share', () => {
  const e = testEstimate(
    [
      ['internet-transfer', { sentGb: '60' }],
      ['internet-transfer', { sentGb: '60' }],
    ],
    { useFreeAllowance: true },
  )
  e.components[0]!.muted = true
  const { components, totals } = priceTest(e)
  // what it would bear if it were counted: half of 20 GB at 0.09
  expect(components.map(c => c.chosen!.monthly)).toEqual(['0.9', '0'])
  expect(totals.monthly).toBe('0')
})
