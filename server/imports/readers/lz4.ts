/**
 * Bytes packed with the codec that Parquet calls LZ4. The specification left open how blocks are framed, and engines differ: blocks with
 * lengths before them, of which one may be in several chunks; LZ4's own frames; a bare block.
 * Sources: LZ4 block and frame formats; Parquet's note on the codec. Recalled from memory.
 * @throws Error when it is none of these.
 */
export function unpackLz4(input: Uint8Array, length: number): Uint8Array {
  for (const way of [inFrames, inLengths, asBlock]) {
    const output = new Uint8Array(length)
    if (way(input, output)) return output
  }
  throw new Error('a page is not packed as LZ4, or is damaged')
}

const FRAME_MAGIC = 0x184d2204
/** A block of a frame that is not packed has this bit in its length. */
const PLAIN_BLOCK = 0x80000000

type Way = (input: Uint8Array, output: Uint8Array) => boolean
const viewOf = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)

/** LZ4 frames: a descriptor, then blocks with their lengths, the smallest byte first, until one of no length. */
const inFrames: Way = (input, output) => {
  if (input.length < 7 || viewOf(input).getUint32(0, true) !== FRAME_MAGIC) return false
  const view = viewOf(input)
  const flags = input[4]!
  let at = 6 + (flags & 8 ? 8 : 0) + (flags & 1 ? 4 : 0) + 1
  let to = 0
  while (at + 4 <= input.length) {
    const size = view.getUint32(at, true)
    at += 4
    if (size === 0) return to === output.length
    const bytes = size >= PLAIN_BLOCK ? size - PLAIN_BLOCK : size
    if (at + bytes > input.length) return false
    const block = input.subarray(at, at + bytes)
    if (size >= PLAIN_BLOCK) {
      if (to + bytes > output.length) return false
      output.set(block, to)
      to += bytes
    } else {
      to = unpackBlock(block, output, to)
      if (to < 0) return false
    }
    at += bytes + (flags & 16 ? 4 : 0)
  }
  return false
}

/** Blocks with their unpacked length before them, then chunks with their packed length, the largest byte first. */
const inLengths: Way = (input, output) => {
  const view = viewOf(input)
  let at = 0
  let to = 0
  while (to < output.length) {
    if (at + 8 > input.length) return false
    const end = to + view.getUint32(at)
    at += 4
    if (end > output.length || end === to) return false
    while (to < end) {
      if (at + 4 > input.length) return false
      const bytes = view.getUint32(at)
      at += 4
      if (bytes === 0 || at + bytes > input.length) return false
      to = unpackBlock(input.subarray(at, at + bytes), output, to)
      if (to < 0 || to > end) return false
      at += bytes
    }
  }
  return at === input.length
}

const asBlock: Way = (input, output) => unpackBlock(input, output, 0) === output.length

/** Unpacks a block behind what is there. @returns where it ends; −1 when it is no block or does not fit. */
function unpackBlock(input: Uint8Array, output: Uint8Array, from: number): number {
  let at = 0
  let to = from
  const longer = (length: number): number => {
    if (length < 15) return length
    let size = length
    for (;;) {
      const more = input[at++]
      if (more === undefined) return Infinity
      size += more
      if (more < 255) return size
    }
  }
  while (at < input.length) {
    const token = input[at++]!
    const literals = longer(token >> 4)
    if (at + literals > input.length || to + literals > output.length) return -1
    output.set(input.subarray(at, at + literals), to)
    at += literals
    to += literals
    if (at === input.length) return to
    const offset = input[at]! | (input[at + 1]! << 8)
    at += 2
    const length = longer(token & 15) + 4
    if (offset === 0 || offset > to || !(to + length <= output.length)) return -1
    // what is copied may be what was just written
    for (const end = to + length; to < end; to++) output[to] = output[to - offset]!
  }
  return -1
}
