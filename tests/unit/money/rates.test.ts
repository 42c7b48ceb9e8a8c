import fc from 'fast-check'
import { expect, it } from 'vitest'
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
