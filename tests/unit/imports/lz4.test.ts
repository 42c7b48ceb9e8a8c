// The framings of LZ4 that Parquet files have, from blocks written by hand after the block format.
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { compressors } from 'hyparquet-compressors'
import { unpackLz4 } from '../../../server/imports/readers/lz4'

/** A block of literals only: a token, the length in bytes of 255, the bytes. */
function literalBlock(bytes: Uint8Array): Uint8Array {
  if (bytes.length < 15) return Uint8Array.of(bytes.length << 4, ...bytes)
  const more: number[] = []
  let left = bytes.length - 15
  for (; left >= 255; left -= 255) more.push(255)
  return Uint8Array.from([0xf0, ...more, left, ...bytes])
}
const text = (bytes: Uint8Array) => new TextDecoder().decode(bytes)
const bytesOf = (words: string) => new TextEncoder().encode(words)
/** «harbour harbour harbour!»: 8 literals, then 15 bytes from 8 back, which overlap what they write, then one literal. */
const repeated = Uint8Array.from([0x8b, ...bytesOf('harbour '), 8, 0, 0x10, 33])
const said = 'harbour harbour harbour!'
const uint = (n: number, littleEndian: boolean) => {
  const bytes = new Uint8Array(4)
  new DataView(bytes.buffer).setUint32(0, n, littleEndian)
  return [...bytes]
}
const frame = (blocks: number[][], flags = 0x40) => Uint8Array.from([4, 0x22, 0x4d, 0x18, flags, 0x40, 0, ...blocks.flat(), 0, 0, 0, 0])

it.each([
  ['a bare block', repeated],
  ['a block with its lengths', Uint8Array.from([...uint(24, false), ...uint(repeated.length, false), ...repeated])],
  [
    'a block in two chunks',
    Uint8Array.from([
      ...uint(24, false),
      ...[said.slice(0, 10), said.slice(10)].flatMap(part => [...uint(part.length + 1, false), ...literalBlock(bytesOf(part))]),
    ]),
  ],
  [
    'two blocks with their lengths',
    Uint8Array.from(
      [said.slice(0, 12), said.slice(12)].flatMap(part => [
        ...uint(part.length, false),
        ...uint(part.length + 1, false),
        ...literalBlock(bytesOf(part)),
      ]),
    ),
  ],
  ['a frame', frame([[...uint(repeated.length, true), ...repeated]])],
  ['a frame with a plain block', frame([[...uint(24 + 0x80000000, true), ...bytesOf(said)]])],
])('unpacks %s', (_, input) => {
  expect(text(unpackLz4(input, 24))).toBe(said)
})

it('unpacks what it is of whatever length, and as the library does where both know it', () => {
  fc.assert(
    fc.property(fc.uint8Array({ minLength: 1, maxLength: 1200 }), bytes => {
      const block = literalBlock(bytes)
      expect([...unpackLz4(block, bytes.length)]).toEqual([...bytes])
      expect([...compressors.LZ4_RAW!(block, bytes.length)]).toEqual([...bytes])
      expect([...unpackLz4(Uint8Array.from([...uint(bytes.length, false), ...uint(block.length, false), ...block]), bytes.length)]).toEqual(
        [...bytes],
      )
    }),
  )
})

it('refuses bytes that are none of these, and never writes beyond the page', () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 200 }), fc.integer({ min: 1, max: 300 }), (bytes, length) => {
      try {
        expect(unpackLz4(bytes, length)).toHaveLength(length)
      } catch (error) {
        expect((error as Error).message).toContain('not packed as LZ4')
      }
    }),
    { numRuns: 500 },
  )
})
