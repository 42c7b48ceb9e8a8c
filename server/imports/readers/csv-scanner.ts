import { cellArrays, DOUBLED, PLAIN, QUOTED, widened } from './csv-cells'
import { unreadable, type RowTarget } from './reader'

const QUOTE = 0x22
const LF = 0x0a
const CR = 0x0d
/** A record larger than this many MB is taken for a quote that was never closed: `RAIN_BARREL_ROW_MB`. */
export const LARGEST_RECORD_MB = Number(process.env.RAIN_BARREL_ROW_MB) || 256
const LARGEST_RECORD = LARGEST_RECORD_MB * 1024 * 1024

/** Empty lines in a row that are passed over; a file with more is none of charges. */
const MOST_EMPTY_LINES = 1_000_000

/**
 * Cuts bytes of CSV (RFC 4180) that arrive in pieces into records, without making a text of any cell. Lines end with LF, CRLF or CR; a
 * quote inside an unquoted cell is taken as it stands; empty lines are passed over.
 */
export class CsvScanner {
  /** Records handed on, the header included. */
  records = 0
  #buffer = new Uint8Array(1 << 20)
  /** The same bytes, to be compared four at a time. */
  #fours = new DataView(this.#buffer.buffer)
  #used = 0
  #cells = cellArrays(64)
  /** How many cells the header and the record before have; only records as wide as the header are compared. */
  #width = -1
  #widthBefore = -1
  /** Where the record before begins: it stays in the buffer, to compare the next with. */
  #kept = 0
  /** How far the room behind what is read is taken by what a record unescapes to. */
  #unescaped = 0
  #next = 0
  /** How much of an open record there has to be before it is looked at again: twice as much, so that it is not read with each piece. */
  #enough = 0
  #emptyLines = 0
  #stopped = false
  #fresh = true

  constructor(
    private readonly target: RowTarget,
    private readonly delimiter = 0x2c,
    private readonly decode: (bytes: Uint8Array) => string,
    private skipLines = 0,
  ) {}

  get stopped(): boolean {
    return this.#stopped
  }

  push(piece: Uint8Array): void {
    // behind what is read there is room as large again, for what `#unescape` makes of a record
    const wanted = (this.#used + piece.length) * 2
    if (wanted > this.#buffer.length) {
      if (this.#used - this.#next + piece.length > LARGEST_RECORD)
        throw unreadable(
          this.records,
          `a row does not end within ${LARGEST_RECORD_MB} MB`,
          'Look for a quote that is not closed in the row before or in this one, or for lines that do not end.',
        )
      const buffer = new Uint8Array(Math.max(this.#buffer.length * 2, wanted))
      buffer.set(this.#buffer.subarray(0, this.#used))
      this.#buffer = buffer
      this.#fours = new DataView(buffer.buffer)
    }
    this.#buffer.set(piece, this.#used)
    this.#used += piece.length
    if (this.#used - this.#next < this.#enough) return
    this.#next = this.#scan(false)
    this.#enough = (this.#used - this.#next) * 2
    const done = Math.min(this.#kept, this.#next)
    this.#buffer.copyWithin(0, done, this.#used)
    this.#used -= done
    this.#next -= done
    this.#kept -= done
    const { fromBefore, toBefore } = this.#cells
    for (let i = 0; i < this.#width; i++) {
      fromBefore[i]! -= done
      toBefore[i]! -= done
    }
  }

  end(): void {
    this.#scan(true)
    this.#used = 0
  }

  /** Hands on all whole records of the buffer. @returns where the first incomplete one begins. */
  #scan(last: boolean): number {
    const buffer = this.#buffer
    const fours = this.#fours
    const used = this.#used
    const { delimiter } = this
    const ceiling = Math.max(delimiter, CR)
    let at = this.#next
    if (this.#fresh) {
      if (used < 3 && !last) return 0
      this.#fresh = false
      if (buffer[0] === 0xef && buffer[1] === 0xbb && buffer[2] === 0xbf) at = 3
    }
    let record = at
    const { compares } = this.target
    while (at < used && !this.#stopped) {
      record = at
      let cells = 0
      let complete = false
      const width = this.#width
      const comparing = compares && this.#widthBefore === width
      let { starts, ends, quotes, same, from, to, fromBefore, toBefore } = this.#cells
      for (;;) {
        if (cells === starts.length) ({ starts, ends, quotes, same, from, to, fromBefore, toBefore } = this.#cells = widened(this.#cells))
        same[cells] = 0
        let known = 0
        if (comparing && cells < width) {
          // what stands as it stood in the row before, up to a comma or the end of the line, need not be taken apart again
          const start = fromBefore[cells]!
          const length = toBefore[cells]! - start
          const most = Math.min(length, used - at)
          while (known + 4 <= most && fours.getInt32(at + known) === fours.getInt32(start + known)) known += 4
          while (known < most && buffer[at + known] === buffer[start + known]) known++
          if (known === length && at + known < used) {
            const byte = buffer[at + known]!
            if (byte === delimiter || byte === LF || byte === CR) same[cells] = 1
          }
        }
        from[cells] = at
        if (same[cells] === 1) {
          starts[cells] = at
          ends[cells] = at += known
          quotes[cells] = PLAIN
        } else if (at < used && buffer[at] === QUOTE) {
          const start = ++at
          let quoted = QUOTED
          for (;;) {
            while (at < used && buffer[at] !== QUOTE) at++
            if (at >= used) break
            if (at + 1 < used) {
              if (buffer[at + 1] !== QUOTE) break
              quoted = DOUBLED
              at += 2
              continue
            }
            if (last) break
            return record // whether the quote closes shows with the next piece
          }
          if (at >= used) {
            if (last)
              throw unreadable(
                this.records,
                'a quoted text is not closed',
                'Put the whole text in quotes and write each quote inside it twice.',
              )
            return record
          }
          starts[cells] = start
          ends[cells] = at
          quotes[cells] = quoted
          at++
          if (at < used && buffer[at] !== delimiter && buffer[at] !== LF && buffer[at] !== CR)
            throw unreadable(
              this.records,
              'a quote stands where none may be',
              'Put the whole text in quotes and write each quote inside it twice.',
            )
        } else {
          const start = at
          at += known // equal to a cell before, and so no comma
          for (; at < used; at++) {
            const byte = buffer[at]!
            if (byte > ceiling) continue // letters and digits, nearly everything, are told by one comparison
            if (byte === delimiter || byte === LF || byte === CR) break
          }
          starts[cells] = start
          ends[cells] = at
          quotes[cells] = PLAIN
        }
        to[cells] = at
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
        } else at++
        complete = true
        break
      }
      if (!complete) return record
      this.#hand(cells, record)
    }
    return at
  }

  #hand(cells: number, record: number): void {
    const own = this.#cells
    const { starts, ends, quotes, same } = own
    this.#kept = record
    this.#widthBefore = -1
    if (this.skipLines > 0) {
      this.skipLines--
      return
    }
    if (cells === 1 && starts[0] === ends[0]) {
      if (++this.#emptyLines > MOST_EMPTY_LINES)
        throw unreadable(this.records, `more than ${MOST_EMPTY_LINES} empty lines follow each other`, 'Export the file again.')
      return
    }
    this.#emptyLines = 0
    if (this.#width >= 0) this.#widthBefore = cells
    this.#unescaped = this.#used
    for (let i = 0; i < cells; i++) if (quotes[i] === DOUBLED) this.#unescape(i)
    this.records++
    if (this.#width < 0) {
      this.#width = cells
      const names = Array.from({ length: cells }, (_, i) => this.decode(this.#buffer.subarray(starts[i]!, ends[i]!)))
      if (!this.target.begin(names)) this.#stopped = true
    } else this.target.bytes(this.#buffer, cells, starts, ends, same)
    ;[own.from, own.fromBefore] = [own.fromBefore, own.from]
    ;[own.to, own.toBefore] = [own.toBefore, own.to]
  }

  /**
   * Writes a text without the second of each pair of quotes behind what is read: where it stands it stays, to compare the next record with.
   */
  #unescape(cell: number): void {
    const buffer = this.#buffer
    const { starts, ends } = this.#cells
    const end = ends[cell]!
    const start = this.#unescaped
    let to = start
    for (let from = starts[cell]!; from < end; from++) {
      buffer[to++] = buffer[from]!
      if (buffer[from] === QUOTE) from++
    }
    starts[cell] = start
    ends[cell] = this.#unescaped = to
  }
}
