/** Gives keys (whole numbers up to 2⁵³) the places 0, 1, 2 … in the order in which they are first met. Open addressing in flat arrays. */
export class CellIndex {
  keys = new Float64Array(1024)
  size = 0
  #slots = new Int32Array(4096)
  #mask = 4095

  place(key: number): number {
    let at = hash(key) & this.#mask
    for (;;) {
      const place = this.#slots[at]!
      if (place === 0) return this.#put(key, at)
      if (this.keys[place - 1] === key) return place - 1
      at = (at + 1) & this.#mask
    }
  }

  #put(key: number, at: number): number {
    if (this.size === this.keys.length) {
      const keys = new Float64Array(this.size * 2)
      keys.set(this.keys)
      this.keys = keys
    }
    this.keys[this.size++] = key
    this.#slots[at] = this.size
    if (this.size * 2 > this.#slots.length) this.#widen()
    return this.size - 1
  }

  #widen(): void {
    this.#slots = new Int32Array(this.#slots.length * 4)
    this.#mask = this.#slots.length - 1
    for (let place = 0; place < this.size; place++) {
      let at = hash(this.keys[place]!) & this.#mask
      while (this.#slots[at] !== 0) at = (at + 1) & this.#mask
      this.#slots[at] = place + 1
    }
  }
}

function hash(key: number): number {
  const high = Math.floor(key / 4294967296)
  let h = Math.imul((key - high * 4294967296) | 0, 0x9e3779b1) ^ Math.imul(high, 0x85ebca77)
  h ^= h >>> 15
  h = Math.imul(h, 0x2c1b3c6d)
  return h ^ (h >>> 13)
}
