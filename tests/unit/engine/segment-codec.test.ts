import fc from 'fast-check'
import { expect, it } from 'vitest'
import { dictionaryNames } from '../../../core/focus/star'
import { measureNames, segmentsOf, type SegmentRow } from '../../../core/spend/segment'
import { decodeSegment, encodeSegment } from '../../../server/engine/segment-codec'

const big = fc.bigInt(-(10n ** 24n), 10n ** 24n)
const row = fc.record({
  startHour: fc.integer({ min: 0, max: 600_000 }), currency: fc.constantFrom(0, 1), keys: fc.record(Object.fromEntries(dictionaryNames.map(name => [name, fc.oneof(fc.nat(200), fc.nat(70_000), fc.nat(2 ** 31 - 1))])) as Record<string, fc.Arbitrary<number>>) as never,
  measures: fc.record(Object.fromEntries(measureNames.map(name => [name, fc.oneof(big, fc.bigInt(-1000n, 1000n), fc.constant(0n))])) as Record<string, fc.Arbitrary<bigint>>) as never,
}) as fc.Arbitrary<SegmentRow>

it('a segment comes back as it was, its currencies by name', () => {
  fc.assert(fc.property(fc.array(row, { minLength: 1, maxLength: 40 }), (rows) => {
    const [segment] = segmentsOf(rows)
    const codes = ['USD', 'EUR']
    const back = decodeSegment(encodeSegment(segment!, ['EUR', 'USD']), currency => codes.indexOf(currency))!
    expect([...back.currency]).toEqual(rows.map(r => 1 - r.currency))
    expect([...back.startHour]).toEqual(rows.map(r => r.startHour))
    for (const name of dictionaryNames) expect([...back.keys[name]]).toEqual(rows.map(r => r.keys[name]))
    for (const name of measureNames) {
      expect([...back.measures[name].high].map(n => n + 0)).toEqual([...segment!.measures[name].high].map(n => n + 0))
      expect(rows.map((_, i) => back.measures[name].low[i]! + 0)).toEqual(rows.map((_, i) => segment!.measures[name].low[i]! + 0))
    }
  }), { numRuns: 100 })
})

it('damage anywhere is seen', () => {
  const bytes = encodeSegment(segmentsOf([{ startHour: 5, currency: 0, keys: Object.fromEntries(dictionaryNames.map(n => [n, 300])) as never, measures: Object.fromEntries(measureNames.map(n => [n, 12_345n])) as never }])[0]!, ['EUR'])
  expect(decodeSegment(bytes, () => 0)).not.toBeNull()
  for (let at = 0; at < bytes.length; at += 7) {
    const damaged = Uint8Array.from(bytes)
    damaged[at]! ^= 0x10
    expect(decodeSegment(damaged, () => 0)).toBeNull()
  }
  expect(decodeSegment(bytes.subarray(0, 20), () => 0)).toBeNull()
  expect(decodeSegment(new Uint8Array(0), () => 0)).toBeNull()
})
