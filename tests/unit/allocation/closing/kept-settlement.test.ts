import { expect, it } from 'vitest'
import { keptSettlement } from '../../../../core/allocation/closing/kept-settlement'
import type { Settlement } from '../../../../core/allocation/settle'

it('keeps the largest of what is unallocated one by one and the others of each currency as one', () => {
  const groups = Array.from({ length: 503 }, (_, i) => ({
    ...{ values: { SubAccountName: `account ${i}` }, currency: i === 501 ? 'USD' : 'EUR', resources: 2, count: 3 },
    amount: i < 500 ? '10' : `${i}.005`,
  }))
  const settlement: Settlement = { statements: [], catches: [], pools: [], unallocated: groups, proof: [], flows: [], uplifts: [] }
  const { unallocated } = keptSettlement(settlement)
  expect(unallocated).toHaveLength(502)
  expect(unallocated.slice(0, 500)).toEqual(groups.slice(0, 500))
  // 500.005 + 502.005
  expect(unallocated.slice(500)).toEqual([
    { values: {}, currency: 'EUR', amount: '1002.01', resources: 4, count: 6 },
    { values: {}, currency: 'USD', amount: '501.005', resources: 2, count: 3 },
  ])
  const few = { ...settlement, unallocated: groups.slice(0, 500) }
  expect(keptSettlement(few)).toBe(few)
})
