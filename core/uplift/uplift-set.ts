import { z } from 'zod'
import { isCurrency } from '../money/currency'
import { parseDecimal } from '../money/decimal'
import { isDay } from '../time/day'
import { add, input, multiply, asUplift, type Working } from '../working/working'

const amount = z.string().refine(text => parseDecimal(text)?.abs().lte('1e12') === true, 'a number, such as 5 or 2.5')

/** The organisation's uplifts on top of list prices: a named set with one interval, attached where it holds. */
export const upliftSetSchema = z.strictObject({
  id: z.string().min(1).max(60),
  name: z.string().trim().min(1, 'give the set a name').max(80),
  currency: z.string().refine(isCurrency, 'not an ISO 4217 currency'),
  interval: z.enum(['hour', 'month']),
  charges: z
    .array(
      z.discriminatedUnion('by', [
        z.strictObject({ by: z.literal('flat'), label: z.string().trim().min(1).max(80), amount }),
        z.strictObject({ by: z.literal('unit'), label: z.string().trim().min(1).max(80), amount, unit: z.string().min(1) }),
        z.strictObject({ by: z.literal('percent'), label: z.string().trim().min(1).max(80), amount }),
      ]),
    )
    .min(1, 'a set without a charge does nothing'),
  /** A component kind or a pattern as a whole, or one variant of it; an operating system, or a prepared image. */
  attached: z.array(
    z.strictObject({ to: z.enum(['kind', 'pattern', 'system', 'image']), key: z.string().min(1).max(120), variant: z.string().nullable() }),
  ),
  validFrom: z.string().refine(isDay, 'write a day like 2026-11-01'),
})
export type UpliftSet = z.infer<typeof upliftSetSchema>

/** A set with who set it and when. */
export type StoredUplift = UpliftSet & { who: string; setAt: string }

/** What a row is, for finding the sets that hold for it. */
export type UpliftTarget = { kind: string; variant: string | null; pattern: string | null; system?: string | null; image?: string | null }

/**
 * The sets that hold for a row: those of its kind or pattern as a whole, of its variant, of its system and of its image; all add up.
 * @param start the day on which the estimate begins: a set that holds from a later day is not borne. Null asks no day.
 */
export function upliftsFor(sets: readonly StoredUplift[], target: UpliftTarget, start: string | null = null): StoredUplift[] {
  return sets.filter(set => (start === null || set.validFrom <= start) && isAttached(set, target))
}

/** Whether a set is attached to what a row, or something that ran, is. */
export const isAttached = ({ attached }: UpliftSet, target: UpliftTarget): boolean =>
  attached.some(({ to, key, variant: only }) => target[to] === key && (only === null || only === target.variant))

/** What uplifts multiply: how many of it there are, the unit hours of all of them, and quantities by their unit. */
export type Multiplied = { count?: Working; unitHours?: Working; amounts?: { unit: string; quantity: Working; hours?: Working }[] }

/**
 * What a set adds to a row in a month, as Workings: flat × count, or where its interval is the hour flat × the hours of all of them (base
 * and peak each for their own hours); a price for each unit, by the hour for the hours that the units are there; or a share of the row's
 * month. What is charged by the hour and has no hours of its own is there all hours of the month.
 * @returns the parts in the set's currency, and the share (of a hundred) apart: it follows every amount of the row.
 */
export function upliftWorkings(
  set: StoredUplift,
  charges: Multiplied,
  monthHours: number,
): { monthly: Working[]; percent: Working | null } {
  const source = `${set.name}, set by ${set.who}, ${set.validFrom}`
  const count = charges.count ?? input('count', 1)
  const all = input('hours of the month', monthHours, 'h')
  const isHourly = set.interval === 'hour'
  const monthly: Working[] = []
  const shares: Working[] = []
  for (const charge of set.charges) {
    const label = `uplift: ${charge.label}`
    if (charge.by === 'flat') {
      const times = !isHourly ? count : (charges.unitHours ?? multiply('hours of all', [count, all], 'h'))
      monthly.push(asUplift(multiply(label, [times, input(`uplift a ${set.interval}`, charge.amount, undefined, source)])))
    } else if (charge.by === 'percent') shares.push(asUplift(input(`${label}, percent`, charge.amount, '%', source)))
    else {
      const amount = charges.amounts?.find(a => a.unit === charge.unit)
      if (!amount) continue
      const times = !isHourly ? amount.quantity : (amount.hours ?? multiply(`${charge.unit} hours`, [amount.quantity, all]))
      monthly.push(asUplift(multiply(label, [times, input(`uplift per ${charge.unit}`, charge.amount, undefined, source)])))
    }
  }
  return { monthly, percent: shares.length ? (shares.length === 1 ? shares[0]! : asUplift(add('uplifts, percent', shares))) : null }
}
