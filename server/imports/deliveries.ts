import type { DeliveryStart } from '../../shared/contracts/imports'
import type { ArrivedFile } from './load-row'

/**
 * A delivery of several files that has been announced and is arriving in the inbox under its load: which file is the one of a part, and
 * which of them lie in their place.
 */
export type Arriving = DeliveryStart & { load: number; claimed: (ArrivedFile | null)[]; arrived: (ArrivedFile | null)[] }

/** Nothing came of a delivery for so long: nobody will complete it. */
const LONGEST_SILENCE_MS = 3_600_000

const open = new Map<string, { delivery: Arriving; timer: NodeJS.Timeout }>()

/** Deliveries under way in this process, by the id of their load. */
export const arriving = {
  /** @param forget what is done with one of which nothing comes any more. */
  begin(delivery: Arriving, forget: () => Promise<void>): void {
    const id = String(delivery.load)
    const giveUp = () => {
      if (arriving.end(id)) forget().catch((error: unknown) => console.error(`delivery ${id} could not be forgotten`, error))
    }
    open.set(id, { delivery, timer: setTimeout(giveUp, LONGEST_SILENCE_MS).unref() })
  },
  find(id: string): Arriving | undefined {
    const found = open.get(id)
    found?.timer.refresh()
    return found?.delivery
  },
  /** @returns false when it has ended already. */
  end(id: string): boolean {
    clearTimeout(open.get(id)?.timer)
    return open.delete(id)
  },
}
