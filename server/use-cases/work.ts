import type { Bound } from '../../core/allocation/bound'
import type { ChargesSeen } from '../charges/charges-seen'
import type { Services } from '../services'

/** Who asks. */
export type Asker = {
  /** What is kept wherever it is kept who did something: the id of a person, or what names nobody. */
  id: string
  name: string
  /** What they see; null for all. */
  bound: Bound | null
}

/** What a use case works with: what runs, who asks, and the charges that they may see. */
export type Work = Omit<Services, 'cube'> & {
  asker: Asker
  seen: ChargesSeen
  /** Tells the charges what has changed beside them. */
  refreshReference: () => Promise<void>
}

/** What runs by itself sees all, or what the one sees for whom it runs. */
export const workFor = ({ cube, ...services }: Services, asker: Asker): Work => ({
  ...services,
  asker,
  seen: cube.within(asker.bound),
  refreshReference: () => cube.refreshReference(),
})
