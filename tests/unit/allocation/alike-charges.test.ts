import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { alikeCharges } from '../../../core/allocation/alike-charges'
import { settleInSlices } from '../../../core/allocation/settle'
import type { Cube } from '../../../core/spend/cube'
import { rowCodes } from '../../../core/spend/layers'
import { toEnd } from '../../../core/spend/slices'
import { cubeOf, plainCharge, valueOf, type PlainCharge } from '../../support/random-charges'

/** Of each charge the values of its combination, and the number that says which look alike. */
function seen(cube: Cube, dimensions: string[]) {
  const segments = [...cube.segmentsByMonth()]
  const { coding, alike, codes, values } = toEnd(alikeCharges(cube, dimensions, segments))
  return segments.flatMap(of => {
    const codeOf = rowCodes(coding.layers, of)
    return Array.from({ length: of.segment.rows }, (_, row) => {
      const combination = codeOf(row)
      return { alike: alike[combination]!, values: codes.map((own, i) => values[i]![own[combination]!]) }
    })
  })
}

const dimensions = ['ServiceName', 'SubAccountName', 'Tags/team']

describe('charges that look alike', () => {
  it('have the values of their charges, and one number where only the resource differs', () => {
    fc.assert(
      fc.property(fc.array(plainCharge, { maxLength: 40 }), charges => {
        const found = seen(cubeOf(charges), dimensions)
        expect(found.map(({ values }) => values)).toEqual(charges.map(one => [...dimensions, 'ResourceId'].map(name => valueOf(one, name))))
        const key = (values: unknown[]) => JSON.stringify(values.slice(0, -1))
        for (const a of found) for (const b of found) expect(a.alike === b.alike).toBe(key(a.values) === key(b.values))
      }),
    )
  })

  it('are told apart where there are more combinations than a float counts', () => {
    // 700 values each of six dimensions: 10¹⁷
    const columns = ['ServiceName', 'SubAccountName', 'RegionId', 'ResourceName', 'ResourceType']
    const charges = Array.from({ length: 700 }, (_, i): PlainCharge => ({
      ...{ day: '2026-09-05', hour: 0, currency: 'EUR', amount: '1', tags: {} },
      values: { ...Object.fromEntries(columns.map((name, k) => [name, `${name} ${(i * (k + 1)) % 699}`])), ResourceId: `r${i % 650}` },
    }))
    const found = seen(cubeOf(charges), columns)
    expect(found.map(({ values }) => values)).toEqual(charges.map(({ values }) => [...columns, 'ResourceId'].map(name => values[name])))
    // the first and the last differ in the resource only
    expect([found[0]!.alike === found[699]!.alike, new Set(found.map(({ alike }) => alike)).size]).toEqual([true, 699])
  })

  it('stand in one order, in whichever they were met', () => {
    const charge = (SubAccountName: string): PlainCharge => ({
      ...{ day: '2026-09-05', hour: 0, currency: 'EUR', amount: '5', tags: {}, values: { SubAccountName, ResourceId: SubAccountName } },
    })
    const nobody = { centres: [], pools: [], rules: [] }
    const names = (...met: string[]) =>
      toEnd(
        settleInSlices(cubeOf(met.map(charge)), nobody, { month: '2026-09', measure: 'billedCost', reportCurrency: null, rates: [] }),
      ).unallocated.map(({ values }) => values.SubAccountName)
    expect([names('b', 'c', 'a'), names('a', 'b', 'c')]).toEqual([
      ['a', 'b', 'c'],
      ['a', 'b', 'c'],
    ])
  })
})
