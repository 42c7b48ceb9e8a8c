import { addTexts } from '../money/amount-text'
import { centresWithin } from './tree'
import type { CostCentre } from './plan'
import type { UpliftLine } from './uplift-lines'

/** What a charge of a set comes to on a cost centre and all below it, in one currency. */
export type UpliftsBelow = Pick<UpliftLine, 'set' | 'name' | 'label' | 'pool' | 'amount'> & {
  /** What it multiplies: so many of a unit at a price; null of parts of what is on a pool. */
  times: UpliftLine['times']
}

/** The uplifts on a cost centre and all below it in one currency; those of one charge (and pool) as one, in the order of their names. */
export function upliftsBelow(
  centres: readonly CostCentre[],
  uplifts: readonly UpliftLine[],
  centre: string,
  currency: string,
): UpliftsBelow[] {
  const within = centresWithin(centres, { centres: [centre] })
  const found = new Map<string, UpliftsBelow>()
  for (const { centre: of, currency: billed, set, name, label, pool, amount, times } of uplifts) {
    if (billed !== currency || of === null || !within.has(of)) continue
    const key = JSON.stringify([name, label, set, pool?.id ?? '', times && [times.unit, times.price]])
    const own = found.get(key)
    if (!own) found.set(key, { set, name, label, pool, amount, times })
    else {
      own.amount = addTexts([own.amount, amount])
      if (own.times && times) own.times = { ...own.times, quantity: addTexts([own.times.quantity, times.quantity]) }
    }
  }
  return [...found].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, own]) => own)
}

/** Uplifts in one currency: what cost centres bear, and what lies on none. */
export function upliftSums(uplifts: readonly UpliftLine[], currency: string): { borne: string; onNone: string } {
  const own = uplifts.filter(one => one.currency === currency)
  const sum = (list: readonly UpliftLine[]) => addTexts(list.map(({ amount }) => amount))
  return { borne: sum(own.filter(({ centre }) => centre !== null)), onNone: sum(own.filter(({ centre }) => centre === null)) }
}
