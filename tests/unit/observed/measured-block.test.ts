import fc from 'fast-check'
import { expect, it } from 'vitest'
import { hourOf, packDay, readingsIn, unmeasured, unpackDay } from '../../../server/observed/measured-block'

it('a day is kept as the checksum and 24 values of four bytes for each resource, and read again as it was', () => {
  const hours = unmeasured()
  hours[0] = 1.5
  hours[23] = 0
  const day = new Map([
    ['constructor', hours],
    ['b', unmeasured()],
  ])
  const block = packDay(day)
  expect([block.resources, block.bytes.byteLength]).toEqual([['constructor', 'b'], 4 + 2 * 24 * 4])
  // 1.5 as IEEE 754 binary32, little endian
  expect([...block.bytes.subarray(4, 8)]).toEqual([0, 0, 0xc0, 0x3f])
  expect(unpackDay(block)).toEqual(day)
  expect(readingsIn('2026-11-02', unpackDay(block)!.get('constructor')!)).toEqual([
    { at: '2026-11-02T00:00:00Z', value: 1.5 },
    { at: '2026-11-02T23:00:00Z', value: 0 },
  ])
  expect(unpackDay(packDay(new Map()))).toEqual(new Map())
})

it('any bit that differs, and a byte too few or too many, shows', () => {
  const block = packDay(new Map([['a', Float32Array.from({ length: 24 }, (_, hour) => hour / 7)]]))
  fc.assert(
    fc.property(fc.nat(block.bytes.length * 8 - 1), bit => {
      const bytes = block.bytes.slice()
      bytes[bit >> 3]! ^= 1 << (bit & 7)
      expect(unpackDay({ ...block, bytes })).toBeNull()
    }),
  )
  expect(unpackDay({ ...block, bytes: block.bytes.subarray(1) })).toBeNull()
  expect(unpackDay({ ...block, resources: ['a', 'b'] })).toBeNull()
})

it('a value of up to six digits comes back as it was measured, any other as near as 32 bits are', () => {
  const kept = (value: number) => {
    const hours = unmeasured()
    hours[5] = value
    return readingsIn('2026-11-02', unpackDay(packDay(new Map([['a', hours]])))!.get('a')!)[0]!.value
  }
  expect([0.1, 0.03, 0.07, 123456, 0.000123456, 16777216, 1e30].map(kept)).toEqual([0.1, 0.03, 0.07, 123456, 0.000123456, 16777216, 1e30])
  fc.assert(
    fc.property(fc.integer({ min: -999_999, max: 999_999 }), fc.integer({ min: -12, max: 12 }), (digits, power) => {
      const value = Number(`${digits}e${power}`)
      expect(kept(value)).toBe(value === 0 ? 0 : value)
    }),
  )
  fc.assert(
    fc.property(fc.double({ min: -1e9, max: 1e9, noNaN: true }), value => {
      expect(Math.abs(kept(value) - value)).toBeLessThanOrEqual(Math.abs(value) * 2 ** -23 + 2 ** -149)
    }),
  )
})

it('knows the hour that a reading is of', () => {
  expect(['2026-11-02T00:00:00Z', '2026-11-02T23:30:00.000Z'].map(at => hourOf({ at, value: 1 }))).toEqual([0, 23])
})
