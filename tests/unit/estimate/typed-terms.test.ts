import { describe, expect, it } from 'vitest'
import { readFunding, readPercent, readRate, type TypedFunding } from '../../../core/estimate/sheet/typed-terms'

describe('percentages', () => {
  it('go from 0 to 100, with their sign or without', () => {
    expect([' 12.50 % ', '0', '100', '7%'].map(text => readPercent(text))).toEqual([
      { value: '12.5' },
      { value: '0' },
      { value: '100' },
      { value: '7' },
    ])
    for (const text of ['-0.01', '100.01', '', 'x', '1,5 %%'])
      expect(readPercent(text), text).toEqual({ problem: 'A percentage from 0 to 100.' })
  })
  it('stay below the whole where that is asked', () => {
    expect(readPercent('100', { whole: 'too much' })).toEqual({ problem: 'too much' })
    expect(readPercent('99.99', { whole: 'too much' })).toEqual({ value: '99.99' })
    expect(readPercent('101', { whole: 'too much' })).toEqual({ problem: 'A percentage from 0 to 100.' })
  })
})

it('a rate is one number above zero of a day; nothing typed is no rate', () => {
  expect(readRate(' ', '2026-11-30')).toBeNull()
  expect(readRate('1,250.5', '2026-11-30')).toEqual({ rate: '1250.5', day: '2026-11-30' })
  expect(readRate('0.92', 'today')).toEqual({ problem: 'Say of which day it is.' })
  for (const text of ['0', '-1', '1..2..3']) expect(readRate(text, '2026-11-30'), text).toEqual({ problem: 'A rate above zero.' })
  expect(readRate('x', '2026-11-30')).toEqual({ problem: expect.stringMatching(/\.$/) as string })
})

describe('a credit', () => {
  const typed: TypedFunding = { label: ' Start ', amount: '1,000', threshold: '0', fromMonth: '1', months: '12' }
  it('is read whole', () => {
    expect(readFunding(typed)).toEqual({ label: 'Start', amount: '1000', threshold: '0', fromMonth: 1, months: 12 })
    expect(readFunding({ ...typed, amount: '0', threshold: '2.5k', fromMonth: '120', months: '120' })).toEqual({
      ...{ label: 'Start', amount: '0', threshold: '2500', fromMonth: 120, months: 120 },
    })
  })
  it('says the first thing that is missing', () => {
    const problem = (more: Partial<TypedFunding>) => readFunding({ ...typed, ...more })
    expect(problem({ label: ' ', amount: 'x' })).toEqual({ problem: 'Say what the credit is.' })
    for (const amount of ['', '-1', '1..2..3', 'x']) {
      expect(problem({ amount }), amount).toEqual({ problem: 'An amount a month.' })
      expect(problem({ threshold: amount }), amount).toEqual({ problem: 'The threshold is an amount a month.' })
    }
    for (const months of ['0', '121', '1.5', '', 'x']) {
      expect(problem({ months }), months).toEqual({ problem: 'Months are from 1 to 120.' })
      expect(problem({ fromMonth: months }), months).toEqual({ problem: 'Months are from 1 to 120.' })
    }
  })
})
