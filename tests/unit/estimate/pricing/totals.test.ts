// What comes on top of the rows, as it is read: parts, credits that meet, margin and tax. Figures worked out by hand.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Estimate } from '../../../../core/estimate/estimate'
import { figureText, priceEstimate } from '../../../../core/estimate/pricing/price-estimate'
import { creditStretches, creditUntil, type Stretch } from '../../../../core/estimate/pricing/credits'
import { sumOfRows } from '../../../../core/estimate/pricing/totals'
import { evaluate, input } from '../../../../core/working/working'
import { outline } from '../../../support/outline'
import { testEstimate, testPrices } from '../../../support/test-card'

const fixed = (amount: string): [string, Record<string, string>] => ['free-form', { amount }]
const price = (more: Partial<Estimate>, rows = [fixed('100')]) => priceEstimate(testEstimate(rows, more), testPrices)
const credit = (label: string, amount: string, fromMonth: number, months: number, threshold = '0') => {
  return { label, amount, threshold, fromMonth, months }
}
const heads = (lines: string[], depth: number) => lines.filter(line => line.search(/\S/) === 2 * depth).map(line => line.trim())

describe('sums of rows', () => {
  it('are by the parts of the workload, one in the other', () => {
    const e = testEstimate([fixed('100'), fixed('20'), fixed('3')])
    const priced = priceEstimate({ ...e, components: e.components.map((row, i) => ({ ...row, part: ['web', '', 'web'][i]! })) }, testPrices)
    const lines = outline(priced.cost.monthly)
    expect(lines[0]).toBe('all parts, monthly = 123')
    expect(heads(lines, 1)).toEqual(['web = 103', 'rows = 20'])
    expect(sumOfRows(priced.rows, 'monthly', 1)).toBe('123')
    expect(sumOfRows([], 'monthly', 1)).toBe('0')
    // a row that is not priced counts as nothing
    const odd = priceEstimate(testEstimate([fixed('100'), ['server', { size: 'none such' }]]), testPrices)
    expect(sumOfRows(odd.rows, 'wholeTerm', 2)).toBe('2400')
  })
  it('divide the whole term by its months where something is paid at once', () => {
    const once = price({ termYears: 2 }, [['free-form', { amount: '240', interval: 'once' }]])
    const lines = outline(once.cost.effectiveMonthly)
    expect(lines[0]).toBe('effective monthly = 10')
    expect(heads(lines, 1).at(-1)).toBe('months of the term = 24')
  })
})

describe('margin and tax', () => {
  it('the margin is a share of the customer’s price, the tax comes on all of it', () => {
    const { steps, total } = price({ marginPercent: '20', taxPercent: '10' })
    expect(steps.map(step => [step.label, step.kind])).toEqual([
      ['margin 20 %', 'margin'],
      ['tax 10 %', 'tax'],
    ])
    const [margin, tax] = steps.map(step => outline(step.figures.monthly))
    expect(margin!.map(line => line.trim())).toEqual(
      expect.arrayContaining([
        'margin = 25',
        "customer's price = 125",
        'share that is not margin = 0.8',
        'all = 1',
        'margin = 0.2',
        'percent = 20 %',
        'of a hundred = 0.01',
      ]),
    )
    expect(tax![0]).toBe('tax = 12.5')
    expect(heads(tax!, 1)).toEqual(['with margin 20 % = 125', 'percent = 10 %', 'of a hundred = 0.01'])
    expect(figureText(total.monthly)).toBe('137.5')
  })
})

describe('credits', () => {
  it('say which months they are for; one that ends with the term, or begins in its last month, counts', () => {
    const labels = (...funding: Estimate['funding']) => price({ termYears: 1, funding }).steps.map(step => step.label)
    expect(labels(credit('a', '1', 1, 12), credit('b', '1', 1, 11), credit('c', '1', 12, 1), credit('d', '1', 3, 60))).toEqual([
      'a',
      'b, months 1 to 11',
      'c, month 12',
      'd, months 3 to 62',
    ])
    expect(labels(credit('late', '1', 13, 1))).toEqual([])
    // at the threshold it is given
    expect(labels(credit('at', '1', 1, 12, '100'), credit('over', '1', 1, 12, '100.01'))).toEqual(['at'])
  })
  it('are read as what they take off a month, times its months', () => {
    const [step] = price({ termYears: 2, funding: [credit('grant', '30', 4, 6)] }).steps
    const lines = outline(step!.figures.wholeTerm)
    expect(lines[0]).toBe('grant = -180')
    expect(heads(lines, 1)).toEqual(['no more than the month costs = -30', 'months = 6'])
    expect(heads(lines, 2)).toEqual(['grant, a month = -30', 'the month = -100'])
    expect(step!.kind).toBe('funding')
    expect(figureText(step!.figures.firstYear)).toBe('-180')
    expect(figureText(step!.figures.monthly)).toBe('0')
    expect(figureText(step!.figures.upfront)).toBe('0')
  })
  it('that meet take no more than the month costs together, also where the first month has neither', () => {
    // 60 in months 2 to 6 and 60 in months 4 to 9 of a month of 100: months 4 to 6 have 40 left
    const { steps, total } = price({ termYears: 1, funding: [credit('one', '60', 2, 5), credit('two', '60', 4, 6)] })
    expect(steps.map(step => figureText(step.figures.wholeTerm))).toEqual(['-300', '-300']) // 5 × 60; 3 × 40 + 3 × 60
    expect(figureText(total.wholeTerm)).toBe('600')
    const lines = outline(steps[1]!.figures.wholeTerm)
    expect(lines[0]).toBe('two, where credits meet = -300')
    expect(heads(lines, 1)).toEqual(['two = -120', 'two = -180'])
    expect(lines.some(line => line.trim() === 'what the credits before it leave of the month = 40')).toBe(true)
    // two that take all of it: nothing is left for a third
    const three = price({ funding: [credit('a', '70', 1, 12), credit('b', '70', 1, 12), credit('c', '70', 1, 12)] })
    expect(three.steps.map(step => figureText(step.figures.monthly))).toEqual(['-70', '-30', '0'])
    expect(figureText(three.total.effectiveMonthly)).toBe('0')
  })
  it('that cover every month in unequal amounts are spread over the term', () => {
    // 60 in month 1 alone, then 60 in all of them: 40 in month 1 and 60 in eleven
    const { steps, total } = price({ termYears: 1, funding: [credit('first', '60', 1, 1), credit('all', '60', 1, 12)] })
    expect(figureText(steps[1]!.figures.wholeTerm)).toBe('-700')
    expect(Number(figureText(total.effectiveMonthly))).toBeCloseTo((1200 - 760) / 12, 12)
    expect(figureText(total.monthly)).toBe('0')
  })
  it('never take more off a month than it costs, and each its amount where there is room', () => {
    const one = fc.record({
      amount: fc.integer({ min: 0, max: 150 }),
      fromMonth: fc.integer({ min: 1, max: 30 }),
      months: fc.integer({ min: 1, max: 30 }),
    })
    fc.assert(
      fc.property(fc.array(one, { maxLength: 5 }), funding => {
        const month = input('the month', 100)
        const given: Stretch[] = []
        const off: number[] = Array.from({ length: 24 }, () => 0)
        for (const { amount, fromMonth, months } of funding) {
          if (fromMonth > 24) continue
          const stretches = creditStretches(credit('c', String(amount), fromMonth, months), month, given, 24)
          // month by month, as one does by hand
          let taken = 0
          for (let m = fromMonth; m < fromMonth + months && m <= 24; m++) {
            const own = Math.min(amount, 100 - off[m - 1]!)
            off[m - 1]! += own
            taken += own
          }
          expect(evaluate(creditUntil('c', stretches, 24)).toNumber() + taken).toBe(0)
          expect(evaluate(creditUntil('c', stretches, 0)).eq(0)).toBe(true)
          given.push(...stretches)
        }
        expect(Math.max(...off)).toBeLessThanOrEqual(100)
      }),
    )
  })
})
