import type { Segment } from '../../core/spend/segment'
import type { ChargeStore } from './charge-store'
import { decodeSegment } from './segment-codec'

/**
 * The charges of a load and billing period, one segment after the other, so that a large period neither fills the memory nor holds up
 * whoever else is waiting.
 * @param currencyCode gives a currency its code in the segments.
 * @throws Error when what is kept is damaged.
 */
export async function* storedSegments(
  charges: Pick<ChargeStore, 'segments'>,
  loadId: number,
  start: string,
  currencyCode: (currency: string) => number,
): AsyncGenerator<Segment> {
  for (let number = 0; ; number++) {
    const [bytes] = await charges.segments(loadId, start, number)
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
