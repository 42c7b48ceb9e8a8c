import { ONE, type Scaled } from '../money/scaled'
import type { Slices } from '../spend/slices'
import type { UpliftUnit } from './meter-use'
import type { UsedSku } from './used-sku'

/** Use of a month: a quantity of a SKU by a resource, put on a target, and what it costs. */
export type Used = {
  target: string | null
  sku: UsedSku
  resource: string | null
  /** In the unit of the SKU. */
  quantity: Scaled
  currency: string
  cost: Scaled
}

/** Something of one variant that ran or was kept on a target. */
export type UsedThing = {
  target: string | null
  kind: string
  variant: string | null
  system: string | null
  /** The part of one thing that it is: less than one where it is on other targets too, or was of other variants. */
  count: Scaled
  /** Hours in which it ran; null where none are measured. */
  hours: Scaled | null
  vcpu: number | null
  /** How much of what units it is; a unit once. */
  amounts: { unit: UpliftUnit; amount: Scaled }[]
  /** What it costs; a currency once. */
  costs: { currency: string; amount: Scaled }[]
}

/** So many uses are looked at in a slice. */
const USES_AT_ONCE = 5000

/**
 * What ran in a month, thing by thing: of a resource what it is on each target and of each variant, so that its counts add up to one. What
 * has no resource counts as many as its hours make of the month, or as one.
 * @param monthHours hours of the month.
 */
export function* usedThings(used: Iterable<Used>, monthHours: number): Slices<UsedThing[]> {
  const resources = new Map<string, Used[]>()
  const systems = new Map<string, string>()
  let at = 0
  for (const one of used) {
    if (++at % USES_AT_ONCE === 0) yield
    const { resource, sku } = one
    if (resource !== null && sku.system !== null) systems.set(resource, sku.system)
    const key = `${sku.use.kind}\0${resource === null ? '' : `\0${resource}`}`
    const own = resources.get(key)
    if (own) own.push(one)
    else resources.set(key, [one])
  }
  const found: UsedThing[] = []
  for (const uses of resources.values()) {
    if (++at % USES_AT_ONCE === 0) yield
    const { resource } = uses[0]!
    found.push(...thingsOf(uses, resource === null ? null : (systems.get(resource) ?? null), BigInt(monthHours) * ONE))
  }
  return found
}

type Own = { thing: UsedThing; size: Scaled }

/** The things that a resource was. @param uses of one resource and kind. */
function thingsOf(uses: readonly Used[], system: string | null, month: Scaled): UsedThing[] {
  const hasHours = uses.some(({ sku }) => sku.use.tells === 'hours')
  // what runs is known by its hours, what is kept by its size: these say which variant it is
  const tells = ({ sku }: Used) => (hasHours ? sku.use.tells === 'hours' : sku.use.tells !== null)
  const things: Own[] = []
  const at = (target: string | null, variant: string | null, vcpu: number | null): Own => {
    const known = things.find(({ thing }) => thing.target === target && thing.variant === variant)
    if (known) return known
    const { kind } = uses[0]!.sku.use
    const own = { thing: { target, kind, variant, system, vcpu, count: 0n, hours: hasHours ? 0n : null, amounts: [], costs: [] }, size: 0n }
    things.push(own)
    return own
  }
  for (const one of uses) {
    if (!tells(one)) continue
    const own = at(one.target, one.sku.variant, one.sku.vcpu)
    own.size += one.quantity
    addUse(own.thing, one)
  }
  for (const one of uses) if (!tells(one)) addUse((largestOn(one.target, things) ?? at(one.target, null, null)).thing, one)
  const { resource } = uses[0]!
  const all = things.reduce((sum, { size }) => sum + least(size), 0n)
  for (const { thing, size } of things)
    if (resource === null) thing.count = hasHours ? (least(size) * ONE) / month : ONE
    else if (all > 0n) thing.count = (least(size) * ONE) / all
    else thing.count = uses.some(tells) ? 0n : ONE / BigInt(things.length)
  return things.map(({ thing }) => thing)
}

const least = (size: Scaled) => (size > 0n ? size : 0n)

/** What of it is largest on a target; the first of equal ones. */
const largestOn = (target: string | null, things: readonly Own[]): Own | null =>
  things.reduce<Own | null>((best, own) => (own.thing.target === target && (!best || own.size > best.size) ? own : best), null)

function addUse(thing: UsedThing, { sku, quantity, currency, cost }: Used): void {
  const { tells } = sku.use
  if (tells === 'hours') thing.hours = (thing.hours ?? 0n) + quantity
  else if (tells) {
    const amount = quantity * tells.times
    const own = thing.amounts.find(({ unit }) => unit === tells.unit)
    if (own) own.amount += amount
    else thing.amounts.push({ unit: tells.unit, amount })
  }
  const own = thing.costs.find(one => one.currency === currency)
  if (own) own.amount += cost
  else thing.costs.push({ currency, amount: cost })
}
