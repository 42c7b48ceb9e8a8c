import Big from 'big.js'
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { rateFinder, type Rate } from '../../../core/money/rates'
import { scaled, scaledText, timesDecimal } from '../../../core/money/scaled'
import { answer } from '../../../core/spend/answer'
import { answerIn, answersIn } from '../../../core/spend/convert'
import { unpackAnswer } from '../../../core/spend/packed'
import type { Question } from '../../../core/spend/question'
import { addDays } from '../../../core/time/day'
import { grains, grainStart } from '../../../core/time/grain'
import { cubeOf, plainCharge, valueOf } from '../../support/random-charges'

// amounts and rates of few digits, so that nothing is rounded and each reckoning must come to the same
const charges = fc.array(
  fc
    .tuple(plainCharge, fc.integer({ min: -99_999, max: 99_999 }))
    .map(([charge, cents]) => ({ ...charge, amount: scaledText(BigInt(cents) * 10n ** 13n) })),
  { maxLength: 100 },
)
const rate = fc
  .record({
    from: fc.constantFrom('USD', 'EUR', 'JPY'),
    to: fc.constantFrom('EUR', 'NOK'),
    validFrom: fc.integer({ min: -20, max: 60 }).map(days => addDays('2026-09-01', days)),
    rate: fc.integer({ min: 1, max: 99_999 }).map(n => scaledText(BigInt(n) * 10n ** 11n)),
  })
  .filter(({ from, to }) => from !== to)
const question = fc
  .record({
    splitBy: fc.uniqueArray(fc.constantFrom('ServiceName', 'SubAccountName', 'ChargeCategory'), { maxLength: 2 }),
    grain: fc.constantFrom(...grains, null),
    limit: fc.option(fc.integer({ min: 1, max: 4 }), { nil: undefined }),
  })
  .map((parts): Question => ({ measure: 'billedCost', keep: {}, leaveOut: {}, start: '2026-09-03', end: '2026-10-20', ...parts }))

it('converts as reckoning charge by charge does, for one question and for several', () => {
  fc.assert(
    fc.property(
      charges,
      fc.array(rate, { maxLength: 12 }),
      fc.constantFrom('EUR', 'NOK', 'CHF'),
      fc.array(question, { minLength: 1, maxLength: 4 }),
      (all, rates, currency, questions) => {
        const cube = cubeOf(all)
        // an inverse rate has no end: only rates of the direction itself are without rounding
        const direct = rates.filter(({ to, from }) => to === currency && from !== currency)
        const rateOn = rateFinder(direct)
        const answers = answersIn(cube, questions, currency, direct).map(unpackAnswer)
        questions.forEach((q, i) => {
          const sums = new Map<string, bigint>()
          for (const charge of all) {
            if (charge.day < q.start || charge.day >= q.end) continue
            const found = rateOn(charge.currency, currency, charge.day)
            const start =
              q.grain === null
                ? null
                : q.grain === 'hour'
                  ? `${charge.day}T${String(charge.hour).padStart(2, '0')}`
                  : grainStart(charge.day, q.grain)
            const key = JSON.stringify([start, found ? currency : charge.currency, ...q.splitBy.map(d => valueOf(charge, d))])
            sums.set(
              key,
              (sums.get(key) ?? 0n) + (found ? scaled(new Big(charge.amount).times(found.rate).toFixed()) : scaled(charge.amount)),
            )
          }
          const { rows, totals, rest, original, unconverted } = answers[i]!
          const shown = new Map(
            rows.map(row => [JSON.stringify([row.start, row.currency, ...q.splitBy.map(d => row.values[d])]), scaled(row.amount)]),
          )
          for (const [key, amount] of shown) expect(sums.get(key)).toBe(amount)
          if (q.limit === undefined) expect(shown.size).toBe(sums.size)
          const totalOf = (list: { currency: string; amount: string }[], of: string) =>
            list.filter(t => t.currency === of).reduce((n, t) => n + scaled(t.amount), 0n)
          for (const t of totals) expect(totalOf(rows, t.currency) + totalOf(rest?.amounts ?? [], t.currency)).toBe(scaled(t.amount))
          expect(original).toEqual(answer(cube, { ...q, limit: undefined }).totals)
          // what has no rate stands apart, with the days of which it is
          for (const t of totals) if (t.currency !== currency) expect(totalOf(unconverted, t.currency)).toBe(scaled(t.amount))
          for (const gap of unconverted) {
            expect(gap.from >= q.start && gap.to <= q.end && gap.from < gap.to).toBe(true)
            expect(rateOn(gap.currency, currency, gap.from)).toBeNull()
          }
        })
      },
    ),
    { numRuns: 150 },
  )
})

it('rates of every day, and days without one, come together in one line', () => {
  const day = (i: number) => addDays('2026-09-01', i)
  const cube = cubeOf(
    Array.from({ length: 20 }, (_, i) => ({ day: day(i), hour: 0, currency: i % 2 ? 'USD' : 'JPY', amount: '10', values: {}, tags: {} })),
  )
  const rates: Rate[] = Array.from({ length: 20 }, (_, i) => ({ from: 'USD', to: 'EUR', validFrom: day(i), rate: String(1 + i) }))
  const found = answerIn(
    cube,
    { measure: 'billedCost', splitBy: [], grain: null, keep: {}, leaveOut: {}, start: day(0), end: day(20) },
    'EUR',
    rates,
  )
  expect(found.totals).toEqual([
    { currency: 'EUR', amount: '1100' },
    { currency: 'JPY', amount: '100' },
  ])
  // charges in yen are of every other day, and no day between them has a rate either
  expect(found.unconverted).toEqual([{ currency: 'JPY', from: day(0), to: day(19), amount: '100' }])
  const known = [...rates, { from: 'JPY', to: 'EUR', validFrom: day(7), rate: '1' }]
  expect(
    answerIn(cube, { measure: 'billedCost', splitBy: [], grain: null, keep: {}, leaveOut: {}, start: day(0), end: day(20) }, 'EUR', known)
      .unconverted,
  ).toEqual([{ currency: 'JPY', from: day(0), to: day(7), amount: '40' }])
})

it('multiplies by a decimal as a library does, rounding half to even', () => {
  fc.assert(
    fc.property(
      fc.bigInt({ min: -(10n ** 22n), max: 10n ** 22n }),
      fc.bigInt({ min: -(10n ** 12n), max: 10n ** 12n }),
      fc.integer({ min: 0, max: 20 }),
      (amount, factor, digits) => {
        const exact = new Big(String(amount)).times(new Big(`${factor}e-${digits}`))
        expect(timesDecimal(amount, factor, digits)).toBe(BigInt(exact.round(0, Big.roundHalfEven).toFixed()))
      },
    ),
  )
  expect([5n, 15n, -5n, -15n].map(amount => timesDecimal(amount, 1n, 1))).toEqual([0n, 2n, 0n, -2n])
})

it('rows and rest of many values add up to the total, rounded as they are', () => {
  const all = Array.from({ length: 5000 }, (_, i) => ({
    day: addDays('2026-09-01', i % 28),
    hour: 0,
    currency: i % 3 ? 'USD' : 'EUR',
    amount: `${i % 17}.123456789012345`,
    values: { ResourceId: `r${(i * 31) % 2300}` },
    tags: {},
  }))
  // a rate holds over many steps of time: the sum of a resource is rounded once, its steps each by themselves
  const rates: Rate[] = ['2026-09-01', '2026-09-18'].map((validFrom, i) => ({ from: 'USD', to: 'EUR', validFrom, rate: `0.91370${i}3` }))
  const { rows, rest, totals } = answerIn(
    cubeOf(all),
    {
      measure: 'billedCost',
      splitBy: ['ResourceId'],
      grain: 'day',
      limit: 40,
      keep: {},
      leaveOut: {},
      start: '2026-09-01',
      end: '2026-10-01',
    },
    'EUR',
    rates,
  )
  expect(rest!.count).toBe(2260)
  expect(scaledText(rows.reduce((n, row) => n + scaled(row.amount), 0n) + scaled(rest!.amounts[0]!.amount))).toBe(totals[0]!.amount)
})
