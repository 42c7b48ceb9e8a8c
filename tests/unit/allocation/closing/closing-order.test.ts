import { describe, expect, it } from 'vitest'
import { closingBarrier, firstOpenMonth } from '../../../../core/allocation/closing/closing-order'

describe('the order in which months are closed', () => {
  it('begins with any month that is over', () => {
    expect(firstOpenMonth([])).toBeNull()
    expect(closingBarrier('2026-10', [], '2026-11-01')).toBeNull()
    expect(closingBarrier('2026-10', [], '2026-10-31')).toBe('it lasts until the end of 2026-10')
  })

  it('goes on with the month after the last, over the end of a year too', () => {
    expect(firstOpenMonth(['2026-11', '2026-12', '2026-10'])).toBe('2027-01')
    expect(closingBarrier('2027-01', ['2026-11', '2026-12'], '2027-02-01')).toBeNull()
    expect(closingBarrier('2027-02', ['2026-12'], '2027-03-01')).toBe('2027-01 is closed before it')
    expect(closingBarrier('2026-12', ['2026-12'], '2027-03-01')).toBe('it is closed already')
    expect(closingBarrier('2026-09', ['2026-12', '2026-10', '2026-11'], '2027-03-01')).toBe(
      'closing began with 2026-10, and months before that stay open',
    )
  })
})
