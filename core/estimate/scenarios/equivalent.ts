import { Decimal } from '../../money/decimal'
import { findPrice, findSize, variantsOf, type Meter, type RateCard } from '../../ratecard/rate-card'
import { findKind } from '../components'
import type { ChoiceField, Field } from '../components/field'
import type { Inputs, Place } from '../components/kind'

/** A value that had to change for a row to stand somewhere else. */
export type Replaced = { field: string, from: string, to: string }

const sizeMeters: readonly Meter[] = ['server-hour', 'database-hour']

/** The cheapest size at a place that is no smaller in vCPU and memory; else the largest there is. */
function sizeLike(size: string, meter: Meter, from: RateCard, { card, region }: Place): string | null {
  const wanted = findSize(from, size)
  const offered = variantsOf(card, meter, region).flatMap(name => findSize(card, name) ?? []).map(s => ({ ...s, price: new Decimal(findPrice(card, meter, region, s.size)!.tiers[0]!.price) }))
  const fits = wanted ? offered.filter(s => s.vcpu >= wanted.vcpu && s.memoryGb >= wanted.memoryGb) : []
  const best = fits.sort((a, b) => a.price.cmp(b.price) || a.size.localeCompare(b.size))[0] ?? offered.sort((a, b) => b.price.cmp(a.price))[0]
  return best?.size ?? null
}

/** The variant whose price is nearest: classes of another provider have other names, but their price says what they are. */
function nearestInPrice(value: string, meter: Meter, from: Place, { card, region }: Place): string | null {
  const was = findPrice(from.card, meter, from.region, value)
  const gap = (name: string) => new Decimal(findPrice(card, meter, region, name)!.tiers[0]!.price).minus(was?.tiers[0]!.price ?? 0).abs()
  return variantsOf(card, meter, region).sort((a, b) => gap(a).cmp(gap(b)))[0] ?? null
}

function replacement(field: ChoiceField, value: string, from: Place, to: Place): string {
  const options = field.options(to.card, to.region)
  if (options.includes(value)) return value
  const like = !field.meter ? null : sizeMeters.includes(field.meter) ? sizeLike(value, field.meter, from.card, to) : nearestInPrice(value, field.meter, from, to)
  return like && options.includes(like) ? like : field.usual(to.card, to.region)
}

/** The inputs of a row as they must be at another place: choices that it does not offer become what is nearest to them. */
export function inputsAt(kind: string, inputs: Inputs, from: Place, to: Place): { inputs: Inputs, replaced: Replaced[] } {
  const fields: readonly Field[] = findKind(kind)?.fields ?? []
  const replaced = fields.flatMap((field): Replaced[] => {
    const value = inputs[field.name]
    if (field.type !== 'choice' || value === undefined) return []
    const next = replacement(field, value, from, to)
    return next === value ? [] : [{ field: field.name, from: value, to: next }]
  })
  return { inputs: Object.fromEntries(replaced.map(r => [r.field, r.to])), replaced }
}
