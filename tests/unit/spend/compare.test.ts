import fc from 'fast-check'
import { expect, it } from 'vitest'
import { scaled, scaledText } from '../../../core/money/scaled'
import { answer } from '../../../core/spend/answer'
import { compare } from '../../../core/spend/compare'
import { answerIn } from '../../../core/spend/convert'
import { reconcile, type InvoiceCharges, type InvoiceFigures } from '../../../core/spend/reconcile'
import { likelySpellings } from '../../../core/spend/spellings'
import { spendTable } from '../../../core/spend/table'
import { cubeOf, plainCharge, type PlainCharge } from '../../support/random-charges'

const september = { start: '2026-09-01', end: '2026-10-01' }
const october = { start: '2026-10-01', end: '2026-11-01' }
const priced = plainCharge.chain(charge =>
  fc
    .record({
      quantity: fc.constantFrom('0', '3', '2.5', '10'),
      unit: fc.constantFrom('Hours', 'GB', null),
      sku: fc.constantFrom('S1', 'S2', null),
    })
    .map(({ quantity, unit, sku }): PlainCharge => ({ ...charge, quantity, values: { ...charge.values, PricingUnit: unit, SkuId: sku } })),
)
const sum = (texts: string[]) => scaledText(texts.reduce((n, text) => n + scaled(text), 0n))

it('contributions add up to the whole change, and each one’s effects to its own, in every currency', () => {
  fc.assert(
    fc.property(
      fc.array(priced, { maxLength: 100 }),
      fc.constantFrom<string[]>(['ServiceName'], ['ServiceName', 'RegionId'], []),
      (charges, splitBy) => {
        const cube = cubeOf(charges)
        const { contributions, totals } = compare(cube, {
          measure: 'billedCost',
          splitBy,
          now: october,
          before: september,
          keep: {},
          leaveOut: {},
        })
        for (const c of contributions) {
          expect(sum(Object.values(c.effects))).toBe(c.difference)
          expect(scaledText(scaled(c.now) - scaled(c.before))).toBe(c.difference)
        }
        for (const total of totals) {
          const own = contributions.filter(c => c.currency === total.currency)
          expect(sum(own.map(c => c.difference))).toBe(total.difference)
          expect(sum(Object.values(total.effects))).toBe(total.difference)
          const whole = (period: typeof october) =>
            answer(cube, { measure: 'billedCost', splitBy: [], grain: null, ...period, keep: {}, leaveOut: {} }).totals.find(
              t => t.currency === total.currency,
            )?.amount ?? '0'
          expect([total.now, total.before]).toEqual([whole(october), whole(september)])
        }
      },
    ),
    { numRuns: 150 },
  )
})

it('a table always sums to its total: down, across and in the rest', () => {
  fc.assert(
    fc.property(fc.array(plainCharge, { maxLength: 80 }), fc.constantFrom(null, 'start', 'RegionId', 'ResourceId'), (charges, across) => {
      const cube = cubeOf(charges)
      const splitBy = ['ServiceName', 'SubAccountName']
      const question = {
        measure: 'billedCost' as const,
        keep: {},
        leaveOut: {},
        ...october,
        splitBy: across && across !== 'start' ? [...splitBy, across] : splitBy,
        grain: across === 'start' ? ('week' as const) : null,
      }
      const table = spendTable(answer(cube, question), null, {
        measure: 'billedCost',
        splitBy,
        companions: {},
        across,
        currency: 'EUR',
        columns: ['share', 'perDay'],
        days: 31,
      })
      table.heads.forEach((head, i) => {
        if (head.kind !== 'amount' || head.column === 'perDay') return
        expect(sum(table.rows.map(row => row.cells[i]!))).toBe(table.total.cells[i])
      })
      if (across)
        for (const row of [...table.rows, table.total])
          expect(
            sum(
              row.cells
                .filter((_, i) => table.heads[i]!.kind === 'amount' && !['amount', 'perDay'].includes(table.heads[i]!.column ?? ''))
                .map(String),
            ),
          ).toBe(row.amount)
    }),
    { numRuns: 100 },
  )
})

it('converts each charge at the rate of its day; what has no rate stays as it is', () => {
  const charge = (day: string, amount: string, currency: string): PlainCharge => ({
    day,
    hour: 0,
    currency,
    amount,
    values: { ServiceName: 's' },
    tags: {},
  })
  const cube = cubeOf([
    charge('2026-09-05', '100', 'USD'),
    charge('2026-09-20', '100', 'USD'),
    charge('2026-09-20', '7', 'EUR'),
    charge('2026-10-02', '50', 'NOK'),
  ])
  const rates = [
    { from: 'USD', to: 'EUR', validFrom: '2026-09-01', rate: '0.9' },
    { from: 'USD', to: 'EUR', validFrom: '2026-09-15', rate: '0.8' },
    { from: 'EUR', to: 'NOK', validFrom: '2026-10-02', rate: '12.5' },
  ]
  const q = {
    measure: 'billedCost' as const,
    splitBy: ['ServiceName'],
    grain: null,
    keep: {},
    leaveOut: {},
    start: '2026-09-01',
    end: '2026-11-01',
  }
  expect(answerIn(cube, q, 'EUR', rates)).toMatchObject({
    totals: [{ currency: 'EUR', amount: '181' }],
    unconverted: [],
    original: [
      { currency: 'EUR', amount: '7' },
      { currency: 'NOK', amount: '50' },
      { currency: 'USD', amount: '200' },
    ],
  })
  expect(answerIn(cube, q, 'EUR', rates.slice(0, 2))).toMatchObject({
    totals: [
      { currency: 'EUR', amount: '177' },
      { currency: 'NOK', amount: '50' },
    ],
    unconverted: [{ currency: 'NOK', amount: '50' }],
  })
  expect(answerIn(cube, { ...q, grain: 'month' }, 'EUR', rates).rows.map(r => [r.start, r.amount])).toEqual([
    ['2026-09-01', '177'],
    ['2026-10-01', '4'],
  ])
})

it('converting conserves: rows and rest add up to the totals', () => {
  fc.assert(
    fc.property(fc.array(plainCharge, { maxLength: 60 }), fc.integer({ min: 1, max: 4 }), (charges, limit) => {
      const rates = [{ from: 'USD', to: 'EUR', validFrom: '2026-09-10', rate: '0.9137' }]
      const converted = answerIn(
        cubeOf(charges),
        {
          measure: 'billedCost',
          splitBy: ['ServiceName'],
          grain: 'week',
          keep: {},
          leaveOut: {},
          start: '2026-09-01',
          end: '2026-11-01',
          limit,
        },
        'EUR',
        rates,
      )
      for (const { currency, amount } of converted.totals)
        expect(
          sum([
            ...converted.rows.filter(r => r.currency === currency).map(r => r.amount),
            converted.rest?.amounts.find(a => a.currency === currency)?.amount ?? '0',
          ]),
        ).toBe(amount)
    }),
  )
})

it('an invoice’s difference is taken apart into tax, rounding and what is unexplained', () => {
  const line = (amount: string, isTax = false, charges = 1): InvoiceCharges => ({ currency: 'EUR', isTax, amount: scaled(amount), charges })
  const check = (invoice: Partial<InvoiceFigures> & { total: string }, ...lines: InvoiceCharges[]) => {
    const r = reconcile({ currency: 'EUR', tax: null, lines: null, rounds: 'lines', ...invoice }, lines)
    expect(sum(r.parts.map(p => p.amount))).toBe(r.difference)
    return [r.state, Object.fromEntries(r.parts.map(p => [p.what, p.amount]))]
  }
  expect(check({ total: '12' }, line('10'), line('2', true))).toEqual(['equal', {}])
  expect(check({ total: '10.01' }, line('5.004'), line('5.004'))).toEqual(['rounding', { rounding: '0.002' }])
  // half a cent for its one line: what is larger is unexplained, however many lines of ours stand behind it
  expect(check({ total: '10' }, line('10.008', false, 900))).toEqual(['differs', { rounding: '0.002', unexplained: '-0.01' }])
  expect(check({ total: '10', lines: 2 }, line('10.008', false, 900))).toEqual(['rounding', { rounding: '-0.008' }])
  expect(check({ total: '10', rounds: 'charges' }, line('10.008', false, 2))).toEqual(['rounding', { rounding: '-0.008' }])
  expect(check({ total: '10', rounds: 'charges' }, line('10.008', false, 1))).toEqual([
    'differs',
    { rounding: '0.002', unexplained: '-0.01' },
  ])
  // 300 charges would excuse 1.50; the invoice has one line
  expect(check({ total: '11.4' }, line('10', false, 300))).toEqual(['differs', { unexplained: '1.4' }])
  expect(check({ total: '13', tax: '3' }, line('10'), line('2', true))).toEqual(['differs', { tax: '1' }])
  expect(check({ total: '60.01' }, line('10.005'))).toEqual(['differs', { rounding: '0.005', unexplained: '50' }])
  expect(check({ total: '5' })[0]).toBe('nothing loaded')
})

it('finds spellings that are likely one, and leaves different names apart', () => {
  expect(
    likelySpellings([
      'booking',
      'Booking',
      'bookings',
      'booking-team',
      'platform',
      'plattform',
      'customs',
      'crew-roster',
      'Crew Roster',
      'live-1',
      'live-2',
      'ab',
      'ac',
    ]).map(g => g.values),
  ).toEqual([
    ['Booking', 'booking', 'booking-team', 'bookings'],
    ['Crew Roster', 'crew-roster'],
    ['platform', 'plattform'],
  ])
})

it('compares in one currency, other rates told as other prices', () => {
  const charge = (day: string, amount: string, currency: string): PlainCharge => ({
    day,
    hour: 0,
    currency,
    amount,
    quantity: '10',
    values: { ServiceName: 's', SkuId: currency, PricingUnit: 'GB' },
    tags: {},
  })
  const cube = cubeOf([
    charge('2026-09-05', '100', 'USD'),
    charge('2026-10-05', '100', 'USD'),
    charge('2026-09-05', '7', 'EUR'),
    charge('2026-10-20', '9', 'EUR'),
    charge('2026-10-20', '5', 'NOK'),
  ])
  const rates = [
    { from: 'USD', to: 'EUR', validFrom: '2026-09-01', rate: '0.9' },
    { from: 'USD', to: 'EUR', validFrom: '2026-10-02', rate: '0.8' },
  ]
  const { contributions, totals } = compare(
    cube,
    { measure: 'billedCost', splitBy: ['ServiceName'], now: october, before: september, keep: {}, leaveOut: {} },
    { currency: 'EUR', rates },
  )
  expect(totals).toMatchObject([
    { currency: 'EUR', now: '89', before: '97', difference: '-8', effects: { price: '-8', quantity: '0', newAndGone: '0' } },
    { currency: 'NOK', now: '5', before: '0' },
  ])
  expect(contributions.map(c => [c.currency, c.kind])).toEqual([
    ['EUR', 'both'],
    ['NOK', 'new'],
  ])
})

it('a cost above something is meant of the whole period, however often rates change within it', () => {
  const charge = (day: string, amount: string, ServiceName: string): PlainCharge => ({
    day,
    hour: 0,
    currency: 'USD',
    amount,
    quantity: '10',
    values: { ServiceName, SkuId: 's', PricingUnit: 'GB' },
    tags: {},
  })
  const cube = cubeOf([charge('2026-10-05', '60', 'large'), charge('2026-10-20', '60', 'large'), charge('2026-10-20', '70', 'small')])
  const rates = ['2026-10-01', '2026-10-15'].map((validFrom, i) => ({ from: 'USD', to: 'EUR', validFrom, rate: `0.${i + 8}` }))
  const { contributions } = compare(
    cube,
    {
      measure: 'billedCost',
      splitBy: ['ServiceName'],
      now: october,
      before: september,
      keep: {},
      leaveOut: {},
      conditions: [{ dimension: 'ServiceName', keep: true, above: '100' }],
    },
    { currency: 'EUR', rates },
  )
  expect(contributions.map(c => [c.values.ServiceName, c.now])).toEqual([['large', '102']])
})

const use = (day: string, amount: string, quantity: string, values: Record<string, string | null>): PlainCharge => ({
  ...{ day, hour: 0, currency: 'EUR', amount, quantity, tags: {} },
  values: { SkuId: 'S', PricingUnit: 'Hours', ChargeCategory: 'Usage', ServiceName: 'Servers', ...values },
})
const asked = { measure: 'billedCost' as const, splitBy: ['ServiceName'], now: october, before: september, keep: {}, leaveOut: {} }

it('takes a change apart as one does by hand', () => {
  const cube = cubeOf([
    // 10 h at 2 before, 12 h at 3 now: 2 more hours at 2 are 4, a price of 1 more on 10 hours 10, both together 2
    use('2026-09-02', '20', '10', {}),
    use('2026-10-02', '36', '12', {}),
    // whole SKUs that came and went
    use('2026-10-02', '7', '1', { SkuId: 'N' }),
    use('2026-09-02', '5', '1', { SkuId: 'G' }),
    // by themselves, whatever they have a quantity of
    use('2026-10-02', '-3', '1', { ChargeCategory: 'Credit' }),
    use('2026-10-02', '2.5', '1', { ChargeCategory: 'Tax' }),
    use('2026-10-02', '100', '1', { ChargeCategory: 'Purchase' }),
    use('2026-10-02', '-1.5', '1', { ChargeClass: 'Correction', ChargeCategory: 'Credit' }),
    // no unit, and a quantity of nothing on either side
    use('2026-10-02', '0.25', '1', { SkuId: 'U', PricingUnit: null }),
    use('2026-10-02', '0.5', '0', { SkuId: 'Z' }),
    use('2026-09-02', '0.125', '0', { SkuId: 'Y' }),
    use('2026-10-02', '0.625', '1', { SkuId: 'Y' }),
  ])
  const [all] = compare(cube, asked).contributions
  expect(all).toMatchObject({ kind: 'both', currency: 'EUR', now: '142.375', before: '25.125', difference: '117.25' })
  expect(all!.effects).toEqual({
    ...{ quantity: '4', price: '10', both: '2', newAndGone: '2' },
    ...{ credits: '-3', tax: '2.5', purchases: '100', corrections: '-1.5', other: '1.25' },
  })
  expect(compare(cube, asked).totals).toEqual([
    // 142.375 / 31 − 25.125 / 30, each to fifteen digits
    { currency: 'EUR', now: '142.375', before: '25.125', difference: '117.25', perDay: '3.755241935483871', effects: all!.effects },
  ])
})

it('says what is new and what is gone, the largest first, equal ones by name; by the day where periods differ in length', () => {
  const cube = cubeOf([
    use('2026-10-02', '31', '1', { ServiceName: 'new' }),
    use('2026-09-02', '60', '1', { ServiceName: 'gone' }),
    use('2026-09-02', '30', '1', { ServiceName: 'b' }),
    use('2026-10-02', '62', '1', { ServiceName: 'b' }),
    use('2026-09-02', '31', '1', { ServiceName: 'a' }),
    use('2026-09-02', '3', '1', { ServiceName: 'two', SkuId: 'gone' }),
    use('2026-10-02', '3', '1', { ServiceName: 'two', SkuId: 'new' }),
  ])
  const found = compare(cube, asked)
  expect([found.daysNow, found.daysBefore]).toEqual([31, 30])
  expect(found.contributions.map(c => [c.values.ServiceName, c.kind, c.difference, c.perDay])).toEqual([
    ['gone', 'gone', '-60', '-2'],
    ['b', 'both', '32', '1'], // 62 / 31 − 30 / 30
    ['a', 'gone', '-31', '-1.033333333333333'],
    ['new', 'new', '31', '1'],
    ['two', 'both', '0', '-0.003225806451613'], // 3 / 31 − 3 / 30
  ])
  const week = compare(cube, {
    ...asked,
    now: { start: '2026-10-01', end: '2026-10-08' },
    before: { start: '2026-09-01', end: '2026-09-08' },
  })
  expect(week.contributions.map(c => [c.values.ServiceName, c.perDay])).toEqual([
    ['gone', '-8.571428571428571'],
    ['b', '4.571428571428571'],
    ['a', '-4.428571428571429'],
    ['new', '4.428571428571429'],
    ['two', '0'],
  ])
  expect(compare(cube, { ...asked, currency: 'USD' }).contributions).toEqual([])
  expect(compare(cube, { ...asked, currency: 'EUR' }).contributions).toHaveLength(5)
})

it('names the charge that carries more than half of a difference, and none where it is half or the other way', () => {
  const described = (day: string, amount: string, ChargeDescription: string | null, ServiceName = 'Servers') =>
    use(day, amount, '1', { ChargeDescription, ServiceName })
  const mostly = (...charges: PlainCharge[]) => compare(cubeOf(charges), asked).contributions.map(c => [c.values.ServiceName, c.mostly])
  expect(mostly(described('2026-10-02', '60', 'refund'), described('2026-10-02', '40', 'other'))).toEqual([
    ['Servers', { description: 'refund', difference: '60' }],
  ])
  expect(mostly(described('2026-10-02', '50', 'refund'), described('2026-10-02', '50', 'other'))).toEqual([['Servers', null]])
  expect(mostly(described('2026-09-02', '60', 'gone'), described('2026-10-02', '10', 'gone'))).toEqual([
    ['Servers', { description: 'gone', difference: '-50' }],
  ])
  // more than half, but against the change as a whole
  const parts = ['a', 'b', 'c', 'd', 'e'].map(name => described('2026-10-02', '20', name))
  expect(mostly(described('2026-10-02', '-60', 'credit'), ...parts)).toEqual([['Servers', null]])
  expect(mostly(described('2026-10-02', '60', null), described('2026-10-02', '40', 'other'))).toEqual([['Servers', null]])
  expect(mostly(described('2026-10-02', '5', 'same'), described('2026-09-02', '5', 'same'))).toEqual([['Servers', null]])
  expect(mostly(described('2026-10-02', '7', 'one', 'A'), described('2026-10-02', '8', 'one', 'B'))).toEqual([
    ['B', { description: 'one', difference: '8' }],
    ['A', { description: 'one', difference: '7' }],
  ])
})
