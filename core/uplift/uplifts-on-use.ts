import Big from 'big.js'
import { Decimal, decimalText } from '../money/decimal'
import { scaledText, type Scaled } from '../money/scaled'
import type { Slices } from '../spend/slices'
import type { UsedThing } from './used-things'
import { isAttached, type StoredUplift } from './uplift-set'

/** What a charge of a set comes to on a target: so many of a unit at a price each, or a share (of a hundred) of what they cost. */
export type UpliftOnUse = {
  target: string | null
  set: string
  name: string
  label: string
  currency: string
  /** Whole minor units of the currency. */
  amount: string
  quantity: string
  /** `each`, a unit, `hours` or hours of a unit; `%` where the quantity is what they cost. */
  unit: string
  price: string
}

type Charge = StoredUplift['charges'][number]
/** What a charge multiplies, and the currency that it comes in. */
type Multiplied = { unit: string; currency: string; quantity: Scaled }

/** So many things are looked at in a slice. */
const THINGS_AT_ONCE = 5000
/** Quantities of uplifts are cut to so many decimals, so that what is printed gives the amount again. */
const QUANTITY_DECIMALS = 6

/**
 * The organisation's uplifts on what ran in a month, by target, set and charge: for each thing (or, by the hour, each hour that it ran),
 * for each unit, or as a share of what it costs. What is charged by the hour and has no hours of its own is there all hours of the month.
 * What comes to nothing is left out.
 * @param start the month's first day: a set that holds from a later day is not borne.
 * @param decimals of a currency's minor unit.
 */
export function* upliftsOnUse(
  sets: readonly StoredUplift[],
  things: readonly UsedThing[],
  { start, monthHours, decimals }: { start: string; monthHours: number; decimals: (currency: string) => number },
): Slices<UpliftOnUse[]> {
  const sums = new Map<string, Multiplied & { target: string | null; set: StoredUplift; charge: Charge }>()
  for (const [number, set] of sets.entries()) {
    if (set.validFrom > start) continue
    for (const [at, thing] of things.entries()) {
      if (at % THINGS_AT_ONCE === THINGS_AT_ONCE - 1) yield
      const { target, kind, variant, system } = thing
      if (!isAttached(set, { kind, variant, pattern: null, system })) continue
      set.charges.forEach((charge, place) => {
        for (const { unit, currency, quantity } of multiplied(set, charge, thing, monthHours)) {
          const key = `${number}\0${place}\0${currency}\0${target === null ? '' : `\0${target}`}`
          const own = sums.get(key) ?? { target, set, charge, currency, unit, quantity: 0n }
          sums.set(key, own)
          own.quantity += quantity
        }
      })
    }
  }
  return [...sums.values()].flatMap(({ target, set, charge, currency, unit, quantity }) => {
    const exact = new Decimal(scaledText(quantity))
    const times = unit === '%' ? exact : exact.round(QUANTITY_DECIMALS, Big.roundHalfUp)
    const whole = times.times(charge.amount)
    const amount = (unit === '%' ? whole.div(100) : whole).round(decimals(currency), Big.roundHalfUp)
    if (amount.eq(0)) return []
    const own = { target, set: set.id, name: set.name, label: charge.label, currency, unit, price: charge.amount }
    return [{ ...own, amount: decimalText(amount), quantity: decimalText(times) }]
  })
}

/** What a charge multiplies of a thing. */
function multiplied(
  { interval, currency }: StoredUplift,
  charge: Charge,
  { count, hours, vcpu, amounts, costs }: UsedThing,
  monthHours: number,
): Multiplied[] {
  const isHourly = interval === 'hour'
  const month = BigInt(monthHours)
  const ran = hours ?? count * month
  switch (charge.by) {
    case 'percent':
      return costs.map(own => ({ unit: '%', currency: own.currency, quantity: own.amount }))
    case 'flat':
      return [isHourly ? { unit: 'hours', currency, quantity: ran } : { unit: 'each', currency, quantity: count }]
    case 'unit': {
      const unit = isHourly ? `${charge.unit} hours` : charge.unit
      if (charge.unit === 'vCPU') {
        if (vcpu === null) return []
        const each = BigInt(Math.round(vcpu * 1e6))
        return [{ unit, currency, quantity: ((isHourly ? ran : count) * each) / 1_000_000n }]
      }
      const own = amounts.find(one => one.unit === charge.unit)
      return own ? [{ unit, currency, quantity: isHourly ? own.amount * month : own.amount }] : []
    }
  }
}
