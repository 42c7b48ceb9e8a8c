/** Turns bytes into text; null when they are not UTF-8. Handed in: the core has no decoder of its own. */
export type Decode = (bytes: Uint8Array) => string | null

const EMPTY = 0

/**
 * The distinct texts of a column, numbered as they come; 0 is the empty text. Bytes are looked up without making a text of them: a file
 * repeats the same few values in row after row, so nearly every cell is found by comparing bytes.
 */
export class ColumnValues {
  /** By number; null for bytes that are not UTF-8. */
  readonly texts: (string | null)[] = ['']
  #arena = new Uint8Array(4096)
  /** The arena, and the bytes that were last asked about, to be compared four at a time. */
  #arenaFours = new DataView(this.#arena.buffer)
  #bytes: Uint8Array = this.#arena
  #bytesFours: DataView = this.#arenaFours
  #used = 0
  #from = [0]
  #to = [0]
  #slots = new Int32Array(256)
  #mask = 255
  #byText = new Map<string, number>([['', EMPTY]])
  #last = EMPTY
  /** By number, the number that followed it last. */
  readonly #next: number[] = []

  constructor(private readonly decode: Decode) {}

  /** The number of the text between two places of the bytes. */
  ofBytes(bytes: Uint8Array, from: number, to: number): number {
    if (from === to) return (this.#last = EMPTY)
    // files go through the same things in the same order again and again: what came after the last value is likely to come after it now
    const likely = this.#next[this.#last]!
    if (likely !== undefined && this.#equal(likely, bytes, from, to)) return (this.#last = likely)
    return (this.#last = this.#next[this.#last] = this.#find(bytes, from, to))
  }

  #find(bytes: Uint8Array, from: number, to: number): number {
    let hash = 0x811c9dc5
    for (let i = from; i < to; i++) hash = Math.imul(hash ^ bytes[i]!, 0x01000193)
    hash ^= hash >>> 15
    let slot = hash & this.#mask
    for (;;) {
      const found = this.#slots[slot]!
      if (found === 0) break
      if (this.#equal(found, bytes, from, to)) return found
      slot = (slot + 1) & this.#mask
    }
    const text = this.decode(bytes.subarray(from, to))
    // a text that was asked for before its bytes were met keeps its number
    const number = (text === null ? undefined : this.#byText.get(text)) ?? this.texts.push(text) - 1
    if (text !== null) this.#byText.set(text, number)
    this.#keep(number, bytes, from, to)
    this.#slots[slot] = number
    if (this.texts.length * 2 > this.#slots.length) this.#widen()
    return number
  }

  /** The number of a text, for sources that have texts already. */
  ofText(text: string): number {
    const found = this.#byText.get(text)
    if (found !== undefined) return found
    const number = this.texts.push(text) - 1
    this.#from[number] = 0
    this.#to[number] = 0
    this.#byText.set(text, number)
    return number
  }

  #equal(number: number, bytes: Uint8Array, from: number, to: number): boolean {
    const start = this.#from[number]!
    if (this.#to[number]! - start !== to - from) return false
    if (bytes !== this.#bytes) {
      this.#bytes = bytes
      this.#bytesFours = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
    }
    const [fours, own] = [this.#bytesFours, this.#arenaFours]
    let i = from
    let k = start
    for (; i + 4 <= to; i += 4, k += 4) if (fours.getInt32(i) !== own.getInt32(k)) return false
    for (; i < to; i++, k++) if (bytes[i] !== this.#arena[k]) return false
    return true
  }

  #keep(number: number, bytes: Uint8Array, from: number, to: number): void {
    const length = to - from
    if (this.#used + length > this.#arena.length) {
      const arena = new Uint8Array(Math.max(this.#arena.length * 2, this.#used + length))
      arena.set(this.#arena.subarray(0, this.#used))
      this.#arena = arena
      this.#arenaFours = new DataView(arena.buffer)
    }
    this.#arena.set(bytes.subarray(from, to), this.#used)
    this.#from[number] = this.#used
    this.#used += length
    this.#to[number] = this.#used
  }

  #widen(): void {
    this.#slots = new Int32Array(this.#slots.length * 4)
    this.#mask = this.#slots.length - 1
    for (let number = 1; number < this.texts.length; number++) {
      if (this.#from[number] === this.#to[number]) continue
      let hash = 0x811c9dc5
      for (let i = this.#from[number]!; i < this.#to[number]!; i++) hash = Math.imul(hash ^ this.#arena[i]!, 0x01000193)
      hash ^= hash >>> 15
      let slot = hash & this.#mask
      while (this.#slots[slot] !== 0) slot = (slot + 1) & this.#mask
      this.#slots[slot] = number
    }
  }
}

/** Numbers combinations of numbers as they come, from 0. All combinations of an index have the same width. */
export class TupleIndex {
  size = 0
  #tuples: Int32Array
  #slots = new Int32Array(256)
  #mask = 255

  constructor(readonly width: number) {
    this.#tuples = new Int32Array(Math.max(1, width) * 64)
  }

  /** @returns the place of the combination; equal to the old `size` when it is new. */
  place(tuple: Int32Array): number {
    let slot = this.#hash(tuple, 0) & this.#mask
    for (;;) {
      const found = this.#slots[slot]!
      if (found === 0) break
      if (this.#equal(found - 1, tuple)) return found - 1
      slot = (slot + 1) & this.#mask
    }
    if ((this.size + 1) * this.width > this.#tuples.length) {
      const tuples = new Int32Array(this.#tuples.length * 2)
      tuples.set(this.#tuples)
      this.#tuples = tuples
    }
    this.#tuples.set(tuple, this.size * this.width)
    this.#slots[slot] = ++this.size
    if (this.size * 2 > this.#slots.length) this.#widen()
    return this.size - 1
  }

  #equal(place: number, tuple: Int32Array): boolean {
    const at = place * this.width
    for (let i = 0; i < this.width; i++) if (this.#tuples[at + i] !== tuple[i]) return false
    return true
  }

  #hash(tuples: Int32Array, at: number): number {
    let hash = 0x811c9dc5
    for (let i = 0; i < this.width; i++) hash = Math.imul(hash ^ tuples[at + i]!, 0x9e3779b1)
    return hash ^ (hash >>> 15)
  }

  #widen(): void {
    this.#slots = new Int32Array(this.#slots.length * 4)
    this.#mask = this.#slots.length - 1
    for (let place = 0; place < this.size; place++) {
      let slot = this.#hash(this.#tuples, place * this.width) & this.#mask
      while (this.#slots[slot] !== 0) slot = (slot + 1) & this.#mask
      this.#slots[slot] = place + 1
    }
  }
}
