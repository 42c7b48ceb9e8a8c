// Fonts of documents against the OpenType specification («Font file», table directory): every table begins at a multiple of four, and its
// sum as 32-bit words, with the head table's adjustment taken as zero, is the checksum that the directory has.
import { readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { sfntOf } from '../../server/exports/estimate/sfnt'

const HEAD = 0x68656164
const files = [
  'public-sans/files/public-sans-latin-400-normal',
  'public-sans/files/public-sans-latin-ext-600-normal',
  'source-serif-4/files/source-serif-4-latin-600-normal',
]

it.each(files)('%s is unpacked whole', file => {
  const woff = readFileSync(`node_modules/@fontsource/${file}.woff`)
  const font = sfntOf(woff)
  // the size that the file says it unpacks to
  expect(font.length).toBe(woff.readUInt32BE(16))
  const count = font.readUInt16BE(4)
  expect(count).toBe(woff.readUInt16BE(12))
  for (let i = 0; i < count; i++) {
    const at = 12 + 16 * i
    const [tag, checksum, offset, length] = [0, 4, 8, 12].map(by => font.readUInt32BE(at + by)) as [number, number, number, number]
    expect(offset % 4).toBe(0)
    let sum = 0
    for (let word = offset; word < offset + length; word += 4)
      sum = (sum + (tag === HEAD && word === offset + 8 ? 0 : font.readUInt32BE(word))) >>> 0
    expect(sum, `table ${font.toString('latin1', at, at + 4)}`).toBe(checksum)
  }
})

it('refuses what is no such font', () => {
  expect(() => sfntOf(new TextEncoder().encode('OTTO and much more that is no WOFF file at all, long as it is'))).toThrow(RangeError)
  expect(() => sfntOf(new Uint8Array(3))).toThrow(RangeError)
})
