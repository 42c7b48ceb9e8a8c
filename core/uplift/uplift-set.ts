import { z } from 'zod'
import { isCurrency } from '../money/currency'
import { parseDecimal } from '../money/decimal'
import { isDay } from '../time/day'
import { add, input, multiply, ownCharge, type Working } from '../working/working'
import type { Charges } from '../estimate/components/kind'

const amount = z.string().refine(text => parseDecimal(text) !== null, 'a number, such as 5 or 2.5')

/** The organisation's own charges on top of list prices: a named set with one interval, attached where it holds. */
export const upliftSetSchema = z.strictObject({
  id: z.string().min(1).max(60),
  name: z.string().trim().min(1, 'give the set a name').max(80),
  currency: z.string().refine(isCurrency, 'not an ISO 4217 currency'),
  interval: z.enum(['hour', 'month']),
  charges: z.array(z.discriminatedUnion('by', [
    z.strictObject({ by: z.literal('flat'), label: z.string().trim().min(1).max(80), amount }),
    z.strictObject({ by: z.literal('unit'), label: z.string().trim().min(1).max(80), amount, unit: z.string().min(1) }),
    z.strictObject({ by: z.literal('percent'), label: z.string().trim().min(1).max(80), amount }),
  ])).min(1, 'a set without a charge does nothing'),
  /** A component kind or a pattern as a whole, or one variant of it. */
  attached: z.array(z.strictObject({ to: z.enum(['kind', 'pattern']), key: z.string().min(1), variant: z.string().nullable() })),
  validFrom: z.string().refine(isDay, 'write a day like 2026-11-01'),
})
export type UpliftSet = z.infer<typeof upliftSetSchema>

/** A set with who set it and when. */
export type StoredUplift = UpliftSet & { who: string, setAt: string }

/** What a row is, for finding the sets that hold for it. */
export type UpliftTarget = { kind: string, variant: string | null, pattern: string | null }

/** The sets that hold for a row: those of its kind or pattern as a whole and those of its variant; both add up. */
export function upliftsFor(sets: readonly StoredUplift[], { kind, variant, pattern }: UpliftTarget): StoredUplift[] {
  return sets.filter(set => set.attached.some(({ to, key, variant: only }) => (to === 'kind' ? key === kind : key === pattern) && (only === null || only === variant)))
}

/**
 * What a set adds to a row in a month, as Workings: flat × count (× hours where its interval is the hour), a price for each unit, or a
 * share of the row's month. @returns the parts in the set's currency, and the share (of a hundred) apart: it follows every amount of the row.
 */
export function upliftWorkings(set: StoredUplift, charges: Charges): { monthly: Working[], percent: Working | null } {
  const source = `${set.name}, set by ${set.who}, ${set.validFrom}`
  const count = charges.count ?? input('count', 1)
  const duration = set.interval === 'hour' ? [charges.hours ?? input('hours', 730, 'h')] : []
  const monthly: Working[] = []
  const shares: Working[] = []
  for (const charge of set.charges) {
    const label = `own charge: ${charge.label}`
    if (charge.by === 'flat') monthly.push(ownCharge(multiply(label, [count, ...duration, input(`own charge a ${set.interval}`, charge.amount, undefined, source)])))
    else if (charge.by === 'percent') shares.push(ownCharge(input(`${label}, percent`, charge.amount, '%', source)))
    else {
      const quantity = charges.amounts?.find(a => a.unit === charge.unit)?.quantity
      if (quantity) monthly.push(ownCharge(multiply(label, [quantity, ...duration, input(`own charge per ${charge.unit}`, charge.amount, undefined, source)])))
    }
  }
  return { monthly, percent: shares.length ? (shares.length === 1 ? shares[0]! : ownCharge(add('own charges, percent', shares))) : null }
}
