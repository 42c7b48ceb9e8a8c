import fc from 'fast-check'
import { expect, it } from 'vitest'
import { Decimal } from '../../../core/money/decimal'
import { rateDays, rateFinder, type Rate } from '../../../core/money/rates'
import { addDays } from '../../../core/time/day'

const day = fc.integer({ min: 0, max: 20 }).map(days => addDays('2026-10-01', days))
const currency = fc.constantFrom('EUR', 'USD', 'NOK')
const line = fc.record({ from: currency, to: currency, validFrom: day, rate: fc.integer({ min: 1, max: 9 }).map(String) })

it('the newest line up to a day holds, of one day the first, else the other direction backwards', () => {
  fc.assert(
    fc.property(fc.array(line, { maxLength: 25 }), currency, currency, day, (rates, from, to, at) => {
      const found = rateFinder(rates)(from, to, at)
      if (from === to) {
        expect(found?.rate.toFixed()).toBe('1')
        return
      }
      const holding = (a: string, b: string) => rates.filter(r => r.from === a && r.to === b && r.validFrom <= at)
      const newest = (list: Rate[]) => list.find(r => list.every(other => other.validFrom <= r.validFrom)) ?? null
      const direct = newest(holding(from, to))
      const back = newest(holding(to, from))
      expect(found?.line ?? null).toBe(direct ?? back)
      expect(found?.inverse ?? false).toBe(!direct && back !== null)
      if (direct) expect(found!.rate.toFixed()).toBe(direct.rate)
      else if (back) expect(Math.abs(Number(found!.rate.times(back.rate).minus(1).toFixed()))).toBeLessThan(1e-16)
    }),
    { numRuns: 400 },
  )
})

it('names the days within a period at which another rate begins', () => {
  const rates = ['2026-10-01', '2026-10-05', '2026-10-05', '2026-10-20'].map((validFrom, i): Rate =>
    i === 2 ? { from: 'EUR', to: 'NOK', validFrom, rate: '11' } : { from: 'USD', to: 'EUR', validFrom, rate: '0.9' },
  )
  expect(rateDays(rates, 'EUR', '2026-10-01', '2026-10-20')).toEqual(['2026-10-01', '2026-10-05'])
  expect(rateDays(rates, 'CHF', '2026-10-01', '2026-10-20')).toEqual(['2026-10-01'])
})

it('puts days in order and takes lines of both directions', () => {
  const rates: Rate[] = [
    { from: 'USD', to: 'EUR', validFrom: '2026-10-07', rate: '0.9' },
    { from: 'EUR', to: 'NOK', validFrom: '2026-10-03', rate: '11' },
    { from: 'NOK', to: 'USD', validFrom: '2026-10-02', rate: '0.1' },
  ]
  expect(rateDays(rates, 'EUR', '2026-10-01', '2026-11-01')).toEqual(['2026-10-01', '2026-10-03', '2026-10-07'])
  expect(rateDays(rates, 'EUR', '2026-10-03', '2026-10-07')).toEqual(['2026-10-03'])
})

it('finds the line of a day in a list that is not in order', () => {
  const of = (validFrom: string, rate: string): Rate => ({ from: 'USD', to: 'EUR', validFrom, rate })
  const find = rateFinder([of('2026-10-20', '3'), of('2026-10-01', '1'), of('2026-10-10', '2'), of('2026-10-10', '4')])
  expect(
    ['2026-09-30', '2026-10-01', '2026-10-09', '2026-10-10', '2026-10-19', '2026-10-20'].map(day =>
      find('USD', 'EUR', day)?.rate.toFixed(),
    ),
  ).toEqual([undefined, '1', '1', '2', '2', '3'])
  expect(find('EUR', 'CHF', '2026-10-10')).toBeNull()
  expect(find('EUR', 'EUR', '2026-10-10')).toEqual({ rate: new Decimal(1), line: null, inverse: false })
  // 1 : 3, to eighteen digits
  expect(find('EUR', 'USD', '2026-10-20')).toMatchObject({ rate: new Decimal('0.333333333333333333'), inverse: true })
})
