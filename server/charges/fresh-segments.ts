import type { EncodedSegment } from './segment-builder'

/** Bytes that are held at most: what is beyond is read from the database, which has all of it. */
const MOST_BYTES = 64 * 1024 * 1024

type FreshLoad = { bytes: number; segments: EncodedSegment[] }

/**
 * Segments that this process has kept in the database a moment ago: the thread that has the charges takes them from here, once, instead of
 * reading them back. The oldest load is forgotten first.
 */
export class FreshSegments {
  readonly #loads = new Map<number, FreshLoad>()
  #bytes = 0

  constructor(private readonly most = MOST_BYTES) {}

  /** Holds segments of a load. What one was given is copied: it may share its memory with others. */
  add(loadId: number, segments: readonly EncodedSegment[]): void {
    const load = this.#loads.get(loadId) ?? { bytes: 0, segments: [] }
    this.#loads.set(loadId, load)
    for (const segment of segments) {
      load.segments.push({ ...segment, bytes: segment.bytes.slice() })
      load.bytes += segment.bytes.length
      this.#bytes += segment.bytes.length
    }
    for (const oldest of this.#loads.keys()) {
      if (this.#bytes <= this.most) break
      this.forget(oldest)
    }
  }

  /**
   * Takes the segments of a load and billing period, in order.
   * @param start when the period starts. @param rows how many charges it has.
   * @returns null where not all of them are here.
   */
  take(loadId: number, start: string, rows: number): Uint8Array[] | null {
    const load = this.#loads.get(loadId)
    if (!load) return null
    const seconds = Date.parse(start) / 1000
    const own = load.segments.filter(segment => segment.periodStart === seconds).sort((a, b) => a.number - b.number)
    load.segments = load.segments.filter(segment => segment.periodStart !== seconds)
    const bytes = own.reduce((sum, segment) => sum + segment.bytes.length, 0)
    load.bytes -= bytes
    this.#bytes -= bytes
    if (!load.segments.length) this.#loads.delete(loadId)
    const isWhole = own.length > 0 && own.every(({ number }, i) => number === i) && own.reduce((sum, one) => sum + one.rows, 0) === rows
    return isWhole ? own.map(segment => segment.bytes) : null
  }

  /** Forgets a load that will not count. */
  forget(loadId: number): void {
    this.#bytes -= this.#loads.get(loadId)?.bytes ?? 0
    this.#loads.delete(loadId)
  }
}
