import { describe, expect, it } from 'vitest'
import { newEstimate } from '../../../../core/estimate/estimate'
import type { NotPriced } from '../../../../core/estimate/components/kind'
import { findPlace, placeText } from '../../../../core/estimate/pricing/place'
import { converter, mustFindRate, rateOf } from '../../../../core/estimate/pricing/rates'
import type { Rate } from '../../../../core/money/rates'
import { input } from '../../../../core/working/working'
import { outline } from '../../../support/outline'
import { testCard } from '../../../support/test-card'

const home = { provider: 'Testcloud', region: 'here' }

describe('a place', () => {
  const cards = new Map([
    ['Testcloud', { ...testCard, regions: [...testCard.regions, { id: 'there', name: 'There' }, { id: '/odd', name: 'Odd' }] }],
    ['Far/Off', { ...testCard, provider: 'Far/Off' }],
  ])
  it('is written as short as it can be, and read back as what it was', () => {
    const places = [
      ['Testcloud', 'here', ''],
      ['Testcloud', 'there', 'there'],
      ['Far/Off', 'here', 'Far/Off/here'],
    ] as const
    for (const [provider, region, text] of places) {
      expect(placeText(provider, region, home)).toBe(text)
      expect(findPlace(text, home, cards)).toEqual({ card: cards.get(provider), region })
    }
    // a slash in front names no provider
    expect(findPlace('/odd', home, cards)?.region).toBe('/odd')
  })
  it('is none where no card has it', () => {
    for (const where of ['nowhere', 'Testcloud/nowhere', 'Nobody/here', 'Far/here']) expect(findPlace(where, home, cards), where).toBeNull()
    expect(findPlace('', { ...home, region: 'gone' }, cards)).toBeNull()
    expect(findPlace('', { provider: 'Nobody', region: 'here' }, cards)).toBeNull()
  })
})

describe('a rate', () => {
  const list: Rate[] = [
    { from: 'USD', to: 'EUR', validFrom: '2026-01-01', rate: '0.8' },
    { from: 'USD', to: 'EUR', validFrom: '2026-07-01', rate: '0.9' },
  ]
  const of = (more: object) => ({ ...newEstimate('t', testCard, 'here'), month: null, startsOn: null, ...more })
  it('is its own for the currency that it names, else the dated one, the newest where no day is said', () => {
    const own = of({ rates: [{ from: 'NOK', rate: '0.1', day: '2026-02-02' }], startsOn: '2026-03-01' })
    expect(rateOf(own, list, 'NOK', 'EUR')).toEqual({ from: 'NOK', to: 'EUR', rate: '0.1', day: '2026-02-02', own: true })
    expect(rateOf(own, list, 'USD', 'EUR')).toEqual({ from: 'USD', to: 'EUR', rate: '0.8', day: '2026-01-01', own: false })
    expect(rateOf(of({}), list, 'USD', 'EUR')).toMatchObject({ rate: '0.9', day: '2026-07-01' })
    expect(rateOf(of({}), list, 'NOK', 'EUR')).toBeNull()
    // the same currency needs no rate, and has no day
    expect(rateOf(of({}), list, 'EUR', 'EUR')).toMatchObject({ rate: '1', day: '9999-12-31' })
  })
  it('converts as Workings that name the rate and its day; the same currency stays', () => {
    const convert = converter(of({}), list, 'EUR')
    const amount = input('disks', 10)
    expect(convert(amount, 'EUR')).toBe(amount)
    expect(outline(convert(amount, 'USD'))).toEqual(['disks, in EUR = 9', '  disks = 10', '  EUR for 1 USD on 2026-07-01 = 0.9'])
  })
  it('that is missing is named with the day and what needs it', () => {
    const refusal = (work: () => unknown) => {
      try {
        work()
      } catch (error) {
        return (error as NotPriced).refusal
      }
      return null
    }
    const where = 'give one under Terms, or under Sources for everything'
    expect(refusal(() => mustFindRate(of({}), [], 'USD', 'EUR'))).toEqual({
      ...{ field: 'where', give: { rate: 'USD', to: 'EUR' } },
      reason: `there is no rate from USD to EUR: ${where}`,
    })
    expect(refusal(() => mustFindRate(of({ startsOn: '2025-05-01' }), list, 'USD', 'EUR', ', for this'))!.reason).toBe(
      `there is no rate from USD to EUR that holds on 1 May 2025, for this: ${where}`,
    )
  })
})
