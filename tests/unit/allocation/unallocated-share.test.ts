import { expect, it } from 'vitest'
import { unallocatedByMonth } from '../../../core/allocation/unallocated-share'

it('says of each month what part of its bill is on nobody, in one currency', () => {
  const row = (start: string, centre: string | null, amount: string, currency = 'EUR') => ({
    ...{ start, amount, currency, values: { CostCentre: centre } },
  })
  const rows = [
    row('2026-11-01', null, '1'),
    row('2026-10-01', 'a', '90'),
    row('2026-10-01', 'pool', '6'),
    row('2026-10-01', null, '4'),
    row('2026-11-01', 'a', '7'),
    row('2026-11-01', null, '99', 'USD'),
    row('2026-12-01', null, '-5'),
  ]
  expect(unallocatedByMonth(rows, 'EUR')).toEqual([
    { month: '2026-10', share: 0.04 },
    { month: '2026-11', share: 0.125 },
    { month: '2026-12', share: null },
  ])
  expect(unallocatedByMonth(rows, 'SEK')).toEqual([])
})
