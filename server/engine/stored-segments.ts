import type { Segment } from '../../core/spend/segment'
import type { Handle } from '../db/client'
import { readBytesCopy } from './bytes-copy'
import { decodeSegment } from './segment-codec'

/** The bytes of the charges of a load and billing period as they are kept, a segment to an array. */
export async function storedBytes(
  { client }: Pick<Handle, 'client'>,
  loadId: number,
  start: string,
  number?: number,
): Promise<Uint8Array[]> {
  const { blob } = await client.query(
    `copy (select bytes from charge_segment where load_id = ${Number(loadId)} and billing_period_start = '${new Date(start).toISOString()}' ${number === undefined ? '' : `and number = ${Number(number)}`} order by number) to '/dev/blob' (format binary)`,
  )
  return readBytesCopy(blob!)
}

/**
 * The charges of a load and billing period, one segment after the other, so that a large period neither fills the memory nor holds up
 * whoever else is waiting.
 * @param currencyCode gives a currency its code in the segments.
 * @throws Error when what is kept is damaged.
 */
export async function* storedSegments(
  database: Pick<Handle, 'client'>,
  loadId: number,
  start: string,
  currencyCode: (currency: string) => number,
): AsyncGenerator<Segment> {
  for (let number = 0; ; number++) {
    const [bytes] = await storedBytes(database, loadId, start, number)
    if (!bytes) return
    const segment = decodeSegment(bytes, currencyCode)
    if (!segment) throw new Error(`the charges of load ${loadId} for ${start.slice(0, 7)} are damaged: load the period's files again`)
    yield segment
  }
}

/** A list of currencies that grows as they are met, and the code of each. */
export function currencyList(): { currencies: string[]; code: (currency: string) => number } {
  const currencies: string[] = []
  return {
    currencies,
    code(currency) {
      const known = currencies.indexOf(currency)
      return known >= 0 ? known : currencies.push(currency) - 1
    },
  }
}
