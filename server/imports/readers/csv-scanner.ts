import { unreadable, type RowTarget } from './reader'

const QUOTE = 0x22
const LF = 0x0A
const CR = 0x0D
/** A record larger than this is taken for a quote that was never closed. */
const LARGEST_RECORD = 256 * 1024 * 1024

/**
 * Cuts bytes of CSV (RFC 4180) that arrive in pieces into records, without making a text of any cell. Lines end with LF, CRLF or CR; a
 * quote inside an unquoted cell is taken as it stands; empty lines are passed over.
 */
export class CsvScanner {
  /** Records handed on, the header included. */
  records = 0
  #buffer = new Uint8Array(1 << 20)
  #used = 0
  #starts = new Int32Array(64)
  #ends = new Int32Array(64)
  #quoted = new Uint8Array(64)
  #header = true
  #stopped = false
  #fresh = true

  constructor(private readonly target: RowTarget, private readonly delimiter = 0x2C, private readonly decode: (bytes: Uint8Array) => string, private skipLines = 0) {}

  get stopped(): boolean {
    return this.#stopped
  }

  push(piece: Uint8Array): void {
    if (this.#used + piece.length > this.#buffer.length) {
      if (this.#used + piece.length > LARGEST_RECORD) throw unreadable(this.records, 'a quoted text does not end within 256 MB', 'Look for a quote that is not closed in the row before or in this one.')
      const buffer = new Uint8Array(Math.max(this.#buffer.length * 2, this.#used + piece.length))
      buffer.set(this.#buffer.subarray(0, this.#used))
      this.#buffer = buffer
    }
    this.#buffer.set(piece, this.#used)
    this.#used += piece.length
    const done = this.#scan(false)
    this.#buffer.copyWithin(0, done, this.#used)
    this.#used -= done
  }

  end(): void {
    this.#scan(true)
    this.#used = 0
  }

  /** Hands on all whole records of the buffer. @returns where the first incomplete one begins. */
  #scan(last: boolean): number {
    const buffer = this.#buffer
    const used = this.#used
    const { delimiter } = this
    const ceiling = Math.max(delimiter, CR)
    let at = 0
    if (this.#fresh) {
      if (used < 3 && !last) return 0
      this.#fresh = false
      if (buffer[0] === 0xEF && buffer[1] === 0xBB && buffer[2] === 0xBF) at = 3
    }
    let record = at
    while (at < used && !this.#stopped) {
      record = at
      let cells = 0
      let complete = false
      for (;;) {
        if (cells === this.#starts.length) this.#widen()
        if (at < used && buffer[at] === QUOTE) {
          const start = ++at
          let doubled = 0
          for (;;) {
            while (at < used && buffer[at] !== QUOTE) at++
            if (at >= used) break
            if (at + 1 < used) {
              if (buffer[at + 1] !== QUOTE) break
              doubled = 1
              at += 2
              continue
            }
            if (last) break
            return record // whether the quote closes shows with the next piece
          }
          if (at >= used) {
            if (last) throw unreadable(this.records, 'a quoted text is not closed', 'Put the whole text in quotes and write each quote inside it twice.')
            return record
          }
          this.#starts[cells] = start
          this.#ends[cells] = at
          this.#quoted[cells] = doubled
          at++
          if (at < used && buffer[at] !== delimiter && buffer[at] !== LF && buffer[at] !== CR) throw unreadable(this.records, 'a quote stands where none may be', 'Put the whole text in quotes and write each quote inside it twice.')
        }
        else {
          const start = at
          for (; at < used; at++) {
            const byte = buffer[at]!
            if (byte > ceiling) continue // letters and digits, nearly everything, are told by one comparison
            if (byte === delimiter || byte === LF || byte === CR) break
          }
          this.#starts[cells] = start
          this.#ends[cells] = at
          this.#quoted[cells] = 0
        }
        cells++
        if (at >= used) {
          complete = last
          break
        }
        const byte = buffer[at]!
        if (byte === delimiter) {
          at++
          if (at >= used && !last) break
          continue
        }
        if (byte === CR) {
          if (at + 1 >= used && !last) return record // a line feed may follow
          at += buffer[at + 1] === LF && at + 1 < used ? 2 : 1
        }
        else at++
        complete = true
        break
      }
      if (!complete) return record
      this.#hand(cells)
    }
    return at
  }

  #hand(cells: number): void {
    if (this.skipLines > 0) {
      this.skipLines--
      return
    }
    if (cells === 1 && this.#starts[0] === this.#ends[0]) return
    for (let i = 0; i < cells; i++) if (this.#quoted[i]) this.#unescape(i)
    this.records++
    if (this.#header) {
      this.#header = false
      const names = Array.from({ length: cells }, (_, i) => this.decode(this.#buffer.subarray(this.#starts[i]!, this.#ends[i]!)))
      if (!this.target.begin(names)) this.#stopped = true
    }
    else this.target.bytes(this.#buffer, cells, this.#starts, this.#ends)
  }

  /** Takes the second of each pair of quotes out, where the cell stands: it only gets shorter. */
  #unescape(cell: number): void {
    const end = this.#ends[cell]!
    let to = this.#starts[cell]!
    for (let from = to; from < end; from++) {
      this.#buffer[to++] = this.#buffer[from]!
      if (this.#buffer[from] === QUOTE) from++
    }
    this.#ends[cell] = to
  }

  #widen(): void {
    const longer = <T extends Int32Array | Uint8Array>(from: T, to: T): T => {
      to.set(from)
      return to
    }
    this.#starts = longer(this.#starts, new Int32Array(this.#starts.length * 2))
    this.#ends = longer(this.#ends, new Int32Array(this.#ends.length * 2))
    this.#quoted = longer(this.#quoted, new Uint8Array(this.#quoted.length * 2))
  }
}
