import type { ItemState, StandingOrderView } from '../../shared/contracts/standing-orders'

/** Where an order stands, in a few words, and whether somebody has to look at it. */
export function orderState({ isOn, isTried, runs }: StandingOrderView): { words: string; wants: boolean } {
  const [newest] = runs
  if (newest?.state === 'running') return { words: 'running', wants: false }
  if (!isTried) return { words: 'to be tried', wants: true }
  if (newest?.state === 'failed') return { words: 'failed', wants: true }
  if (newest?.state === 'braked') return { words: 'held by its brake', wants: true }
  const asked = newest?.counts.find(({ state }) => state === 'asked')?.count ?? 0
  if (asked) return { words: `asks about ${asked}`, wants: true }
  return { words: isOn ? 'on' : 'off', wants: false }
}

/** The order in which what a run found is shown: what wants somebody first. */
export const itemOrder: readonly ItemState[] = [
  'failed',
  'not known',
  'asked',
  'would ask',
  'would do',
  'done',
  'not begun',
  'done before',
  'waits',
  'left alone',
]
export const wantsSomebody: ReadonlySet<ItemState> = new Set<ItemState>(['failed', 'not known', 'asked', 'would ask'])
