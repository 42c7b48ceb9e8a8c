import { scaledText, sizeOf, type Scaled } from '../money/scaled'
import type { Cube } from './cube'
import { type Lookup, valuesFitting } from './lookup'
import { plainGroups } from './plain-groups'
import type { CostMeasure } from './question'

/** A value of which a lookup says nothing in a field, with what it costs in a currency. */
export type UnknownValue = { value: string; currency: string; amount: string; count: number }
/**
 * Where charges and a lookup do not meet in a period: values of its dimension of which it says nothing on the day, largest first, with
 * what they cost; what has no value of the dimension at all; and keys that no charge has.
 */
export type Unmatched = {
  unknown: UnknownValue[]
  without: { currency: string; amount: string; count: number }[]
  unused: { key: string; match: 'pattern' | null }[]
}

/** Asked of a lookup under a name by which charges know it. */
export type UnmatchedAsked = { name: string; start: string; end: string; measure: CostMeasure; basis?: 'billing' }

/** @throws RangeError where there is no lookup of that name. */
export function unmatchedOf(cube: Cube, { name, ...period }: UnmatchedAsked): Unmatched {
  const lookup = cube.reference.lookups[name]
  if (!lookup) throw new RangeError(`no lookup is called ${name}`)
  const { measure, ...rest } = period
  const fields = lookup.fields.map(field => `Lookup/${name}/${field}`)
  // of nothing, where any of its fields says something
  const keep = Object.fromEntries(fields.map(field => [field, [null]]))
  const groups = plainGroups(cube, { ...rest, keep, leaveOut: {}, splitBy: [lookup.by], grain: null, measures: [measure] })
  const said = groups.map(({ values, currency, amounts, count }) => ({
    ...{ value: values[lookup.by] ?? null, currency, count },
    sum: amounts[0]!,
  }))
  return {
    unknown: said
      .sort((a, b) => bySize(a, b) || ((a.value ?? '') < (b.value ?? '') ? -1 : 1))
      .flatMap(({ value, sum, ...own }) => (value === null ? [] : [{ value, ...own, amount: scaledText(sum) }])),
    without: said.flatMap(({ value, sum, currency, count }) => (value === null ? [{ currency, amount: scaledText(sum), count }] : [])),
    unused: unusedKeys(cube, lookup),
  }
}

const bySize = (a: { sum: Scaled }, b: { sum: Scaled }) => (sizeOf(a.sum) === sizeOf(b.sum) ? 0 : sizeOf(a.sum) > sizeOf(b.sum) ? -1 : 1)

/** Keys that no charge that is loaded has, whenever it was. */
function unusedKeys(cube: Cube, { by, entries }: Lookup): Unmatched['unused'] {
  const { values } = cube.coding(by)
  const alias = cube.reference.aliases[by] ?? {}
  const known = new Set(values)
  const fitting = valuesFitting(values)
  const isUsed = ({ key, match }: Lookup['entries'][number]) =>
    match ? fitting(key).length > 0 : known.has(Object.hasOwn(alias, key) ? alias[key]! : key)
  const unused = new Map(
    entries.filter(entry => !isUsed(entry)).map(({ key, match }) => [`${match} ${key}`, { key, match: match ?? null }]),
  )
  return [...unused.values()]
}
