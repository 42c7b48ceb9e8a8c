import { crc32 } from 'node:zlib'
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { dictionaryNames } from '../../../core/focus/star'
import { segmentsOf, type SegmentRow } from '../../../core/spend/open-segment'
import { ABSENT, amountOf, measureNames, type Segment } from '../../../core/spend/segment'
import { decodeSegment, encodeSegment } from '../../../server/charges/segment-codec'

const big = fc.oneof(fc.bigInt(-(10n ** 24n), 10n ** 24n), fc.bigInt(-(10n ** 30n), 10n ** 30n))
const id = fc.oneof(fc.nat(3), fc.nat(200), fc.nat(70_000), fc.nat(2 ** 31 - 1))
const amount = fc.oneof(big, fc.bigInt(-1000n, 1000n), fc.constant(0n))
const record = <T>(names: readonly string[], value: (name: string) => fc.Arbitrary<T>) =>
  fc.record(Object.fromEntries(names.map(name => [name, value(name)]))) as fc.Arbitrary<never>
const row: fc.Arbitrary<SegmentRow> = fc
  .tuple(
    fc.oneof(fc.integer({ min: 0, max: 2 ** 33 }), fc.constantFrom(1_790_000_000, 1_790_003_600)),
    fc.constantFrom(1, 3600, 86_400, 31_536_000),
  )
  .chain(([start, lasts]) =>
    fc.record({
      start: fc.constant(start),
      end: fc.constant(start + lasts),
      currency: fc.constantFrom(0, 1),
      keys: record(dictionaryNames, () => id),
      measures: record(measureNames, name => (name in ABSENT ? fc.option(amount, { nil: undefined }) : amount)),
    }),
  )

/** A row of a segment as plain values again. */
function rowOf(segment: Segment, at: number): SegmentRow {
  const { time, currency, absent, keys, measures } = segment
  return {
    start: time.starts[time.codes[at]!]!,
    end: time.ends[time.codes[at]!]!,
    currency: currency[at]!,
    keys: Object.fromEntries(dictionaryNames.map(name => [name, keys[name].ids[keys[name].codes[at]!]!])) as SegmentRow['keys'],
    measures: Object.fromEntries(
      measureNames.map(name => [name, absent[at]! & (ABSENT[name] ?? 0) ? undefined : amountOf(measures[name], at)]),
    ),
  }
}

it('a segment comes back as it was, its currencies by name', () => {
  fc.assert(
    fc.property(fc.array(row, { minLength: 1, maxLength: 40 }), rows => {
      const [segment] = segmentsOf(rows)
      expect(rows.map((_, at) => rowOf(segment!, at))).toEqual(rows)
      const codes = ['USD', 'EUR']
      const back = decodeSegment(encodeSegment(segment!, ['EUR', 'USD']), currency => codes.indexOf(currency))!
      expect(rows.map((_, at) => rowOf(back, at))).toEqual(rows.map(r => ({ ...r, currency: 1 - r.currency })))
      expect([back.firstHour, back.lastHour]).toEqual([
        Math.min(...rows.map(r => Math.floor(r.start / 3600))),
        Math.max(...rows.map(r => Math.floor(r.start / 3600))),
      ])
    }),
    { numRuns: 200 },
  )
})

it('a segment grows to its most rows and keeps each of as many ids', () => {
  const rows = Array.from({ length: 70_000 }, (_, i): SegmentRow => ({
    start: i * 3600,
    end: (i + 1) * 3600,
    currency: 0,
    keys: Object.fromEntries(dictionaryNames.map(name => [name, i + 1])) as never,
    measures: Object.fromEntries(measureNames.map(name => [name, BigInt(i)])),
  }))
  const segments = segmentsOf(rows).map(segment => decodeSegment(encodeSegment(segment, ['EUR']), () => 0)!)
  expect(segments.map(segment => segment.rows)).toEqual([65_536, 4464])
  expect(rowOf(segments[0]!, 65_535)).toEqual(rows[65_535])
  expect(rowOf(segments[1]!, 4463)).toEqual(rows.at(-1))
})

it('a segment of a version that is not known is not read, however whole it is', () => {
  const row: SegmentRow = {
    start: 0,
    end: 3600,
    currency: 0,
    keys: Object.fromEntries(dictionaryNames.map(n => [n, 1])) as never,
    measures: Object.fromEntries(measureNames.map(n => [n, 1n])),
  }
  const bytes = encodeSegment(segmentsOf([row])[0]!, ['EUR'])
  const text = Buffer.from('"version":2')
  const at = Buffer.from(bytes).indexOf(text) + text.length - 1
  const ofVersion = (version: string) => {
    const other = Uint8Array.from(bytes)
    other[at] = version.charCodeAt(0)
    new DataView(other.buffer).setUint32(0, crc32(other.subarray(4)))
    return decodeSegment(other, () => 0)
  }
  expect(['0', '1', '4', '9'].map(ofVersion)).toEqual([null, null, null, null])
  expect(['2', '3'].map(version => ofVersion(version)?.rows)).toEqual([1, 1])
})

it('damage anywhere is seen', () => {
  const bytes = encodeSegment(
    segmentsOf([
      {
        start: 18_000,
        end: 21_600,
        currency: 0,
        keys: Object.fromEntries(dictionaryNames.map(n => [n, 300])) as never,
        measures: Object.fromEntries(measureNames.map(n => [n, 12_345n])) as never,
      },
    ])[0]!,
    ['EUR'],
  )
  expect(decodeSegment(bytes, () => 0)).not.toBeNull()
  for (let at = 0; at < bytes.length; at += 7) {
    const damaged = Uint8Array.from(bytes)
    damaged[at]! ^= 0x10
    expect(decodeSegment(damaged, () => 0)).toBeNull()
  }
  expect(decodeSegment(bytes.subarray(0, 20), () => 0)).toBeNull()
  expect(decodeSegment(new Uint8Array(0), () => 0)).toBeNull()
})
