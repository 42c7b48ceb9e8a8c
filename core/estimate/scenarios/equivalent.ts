import { Decimal } from '../../money/decimal'
import { describeLine } from '../../ratecard/describe'
import { findSize, hasMeter, linesOf, variantName } from '../../ratecard/find-price'
import type { PriceLine } from '../../ratecard/rate-card'
import type { ChoiceField } from '../components/field'
import { applies, lineAt, type ComponentKind, type Inputs, type Place } from '../components/kind'
import { openSystem, runsSystem, sharedHost, standsOn } from '../components/server'

/** A value that had to change for a row to stand somewhere else. */
export type Replaced = { field: string; label: string; from: string; to: string }
/** A row as it stands at another place: with the same thing, or not at all and why. */
export type Elsewhere = { inputs: Inputs; replaced: Replaced[]; notOffered: null } | { field: string; notOffered: string }

/** Attributes of which less is better; of all others more is. */
const lessIsBetter = new Set(['minimumDays', 'hoursToFetch'])

/** What lines state that says nothing of what the thing can do: terms, and what is usual for its users. */
const isTerm = (name: string) => name === 'broughtAlong' || name === 'profileGb' || name.startsWith('usersPerVcpu')

/** What a line states of an attribute; where it states no most, what it includes is the most. */
function stated({ includes = {} }: PriceLine, name: string): Decimal | null {
  const own = (key: string) => (Object.hasOwn(includes, key) ? includes[key] : undefined)
  const text = own(name) ?? (name.endsWith('Most') ? own(name.slice(0, -4)) : undefined)
  return text === undefined ? null : new Decimal(text)
}

const attributesOf = ({ includes = {} }: PriceLine) => Object.keys(includes).filter(name => !isTerm(name))

/** Whether a line has no less of an attribute than another one states; null where it states nothing of it. */
function keeps(candidate: PriceLine, wanted: PriceLine, name: string): boolean | null {
  const [asked, has] = [stated(wanted, name)!, stated(candidate, name)]
  return has && (lessIsBetter.has(name) ? has.lte(asked) : has.gte(asked))
}

/** Whether a line of another name keeps everything that one states: at least one attribute, and each of them. */
const keepsAll = (candidate: PriceLine, wanted: PriceLine): boolean =>
  attributesOf(wanted).length > 0 && attributesOf(wanted).every(name => keeps(candidate, wanted, name) === true)
/** Whether a line of the same name is nowhere stated to be less. */
const isNoLess = (candidate: PriceLine, wanted: PriceLine): boolean =>
  attributesOf(wanted).every(name => keeps(candidate, wanted, name) !== false)

const firstPrice = (line: PriceLine) => new Decimal(line.tiers[0]!.price)
const cheapest = (lines: PriceLine[]): PriceLine | undefined =>
  lines.sort((a, b) => firstPrice(a).cmp(firstPrice(b)) || variantName(a).localeCompare(variantName(b)))[0]

/** Whether a size at a place is no smaller than one elsewhere, of the same architecture, and takes the row's system and host. */
function sizeFits(size: string, wanted: string, inputs: Inputs, from: Place, { card }: Place): boolean {
  const [has, asked] = [findSize(card, size), findSize(from.card, wanted)]
  if (!has || !asked) return false
  const isAlike = !asked.architecture || !has.architecture || asked.architecture === has.architecture
  return (
    has.vcpu >= asked.vcpu &&
    has.memoryGb >= asked.memoryGb &&
    isAlike &&
    runsSystem(card, size, inputs.system ?? openSystem) &&
    standsOn(card, size, inputs.host ?? sharedHost)
  )
}

/**
 * The line at a place that is the same thing as one elsewhere; undefined when there is none.
 * @param inputs of a row: the system and host that a size has to take.
 */
export function sameThing(line: PriceLine, inputs: Inputs, from: Place, to: Place): PriceLine | undefined {
  const isSize = line.variant !== null && findSize(from.card, line.variant) !== undefined
  const named = lineAt(to, line.meter, line.variant)
  const fits = (found: PriceLine) => found.unit === line.unit && (!isSize || sizeFits(variantName(found), line.variant!, inputs, from, to))
  if (named && fits(named) && isNoLess(named, line)) return named
  const offered = linesOf(to.card, line.meter, to.region).filter(fits)
  return cheapest(isSize ? offered : offered.filter(found => keepsAll(found, line)))
}

type Choice = { value: string; replaced: Replaced | null } | { notOffered: string }

function choiceElsewhere(field: ChoiceField, inputs: Inputs, from: Place, to: Place): Choice {
  const value = inputs[field.name]!
  const options = field.options(to.card, to.region)
  const means = field.means?.(value, from.card, from.region) ?? null
  const line = means && lineAt(from, means.meter, means.variant)
  if (field.name === 'pays' && !options.includes(value))
    return { value: 'on-demand', replaced: { field: field.name, label: field.label, from: value, to: 'on-demand' } }
  if (!means || !line)
    return options.includes(value)
      ? { value, replaced: null }
      : { notOffered: `${to.card.provider} has no ${field.label} «${value}» in ${to.region}` }
  const found = sameThing(line, inputs, from, to)
  if (!found) {
    const size = line.variant === null ? undefined : findSize(from.card, line.variant)
    const what = size
      ? `no size with at least ${size.vcpu} vCPU and ${size.memoryGb} GB${size.architecture ? `, ${size.architecture}` : ''}`
      : `nothing like «${field.name === 'sku' ? describeLine(line, from.card) : value}»`
    return { notOffered: `${to.card.provider} has ${what} in ${to.region}` }
  }
  const option = means.option(found)
  const isSame = variantName(found) === variantName(line) || (found.variant === null && line.variant === null)
  return {
    value: option,
    replaced: isSame ? null : { field: field.name, label: field.label, from: variantName(line), to: variantName(found) },
  }
}

/**
 * A row's inputs at another place, or on another version of a card. The same thing keeps its meter and variant, or else everything that is
 * stated of it: system, host, zones, architecture, no less vCPU and memory, no less operations and throughput; otherwise it is not offered
 * there. Ways to pay that the place does not have become on-demand.
 * @param inputs complete, as they are at the place it comes from. @param set names inputs that were chosen for the new place already.
 */
export function inputsElsewhere(
  kind: ComponentKind,
  inputs: Inputs,
  from: Place,
  to: Place,
  set: ReadonlySet<string> = new Set(),
): Elsewhere {
  const lacking = kind.needs.find(meter => !hasMeter(to.card, meter, to.region))
  const first = kind.fields.find(field => field.column === 'size')?.name ?? 'where'
  if (lacking) return { field: first, notOffered: `${to.card.provider} has no price for ${kind.label.toLowerCase()} in ${to.region}` }
  const zones = to.card.regions.find(r => r.id === to.region)?.zones
  if (zones !== undefined && !set.has('zones') && Number(inputs.zones ?? 1) > zones)
    return { field: 'zones', notOffered: `${to.region} has ${zones} ${zones === 1 ? 'zone' : 'zones'}, not ${inputs.zones!}` }
  const moved = { ...inputs }
  const replaced: Replaced[] = []
  for (const field of kind.fields) {
    if (field.type !== 'choice' || set.has(field.name) || !applies(field, inputs, from)) continue
    const choice = choiceElsewhere(field, inputs, from, to)
    if ('notOffered' in choice) return { field: field.name, notOffered: choice.notOffered }
    moved[field.name] = choice.value
    if (choice.replaced) replaced.push(choice.replaced)
  }
  return { inputs: moved, replaced, notOffered: null }
}

/** What was replaced, in words. */
export const replacedText = (replaced: readonly Replaced[]): string =>
  replaced.map(({ label, from, to }) => `${label} ${from} became ${to}`).join(', ')
