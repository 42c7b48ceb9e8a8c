import type { Entries } from '../entries'
import type { Coding } from '../layers'
import { accountTree } from './account-tree'
import { allocationRule } from './allocation-rule'
import { chargedFor } from './charged-for'
import { column } from './column'
import { container } from './container'
import { costCentre } from './cost-centre'
import type { CodingOf, DimensionGroup, DimensionKind } from './kind'
import { lookedUp } from './looked-up'
import { ownColumn } from './own-column'
import { priceDetail } from './price-detail'
import { serviceWhole } from './service-whole'
import { source } from './source'
import { tag } from './tag'
import { tagSource } from './tag-source'

/**
 * Everything that spend can be split by and narrowed to, in one list: names, values, lists and words are made of it. The names that come
 * with the data stand in lists in this order.
 */
const dimensionKinds: readonly DimensionKind<unknown>[] = [
  tag,
  tagSource,
  priceDetail,
  ownColumn,
  container,
  accountTree,
  serviceWhole,
  chargedFor,
  lookedUp,
  costCentre,
  allocationRule,
  source,
  column,
]

/** A dimension: one of the kinds, with what its name says. */
export type Dimension = Pick<DimensionKind<unknown>, 'kind' | 'changesWithCharges' | 'isSaid'> & {
  coding: (of: CodingOf) => Coding
  label: string
  none: string
  group: DimensionGroup
}

/** What a name stands for; null when it is no dimension. */
export function dimensionOf(name: string): Dimension | null {
  for (const kind of dimensionKinds) {
    const asked = kind.read(name)
    if (asked === null) continue
    const label = kind.label(asked, name)
    return {
      ...{ kind: kind.kind, changesWithCharges: kind.changesWithCharges ?? false, isSaid: kind.isSaid },
      ...{ coding: of => kind.coding(of, asked, name), label, none: kind.none ?? `no ${label}`, group: kind.group(asked) },
    }
  }
  return null
}

/** Codes of a dimension's values. @throws RangeError for something that is no dimension. */
export function makeCoding(name: string, of: CodingOf): Coding {
  const dimension = dimensionOf(name)
  if (!dimension) throw new RangeError(`not a dimension: ${name}`)
  return dimension.coding(of)
}

/** Whether spend can be split by it. */
export const isDimension = (name: string): boolean => dimensionOf(name) !== null

/** Whether a lookup may go by a dimension: by anything that is not itself looked up or said by rules. */
export function isLookupBase(name: string): boolean {
  const dimension = dimensionOf(name)
  return dimension !== null && dimension.isSaid === undefined
}

/** Where a rule may look: at everything that spend can be split by, but for whose a charge is, which rules say. */
export function isRuleDimension(name: string): boolean {
  const dimension = dimensionOf(name)
  return dimension !== null && dimension.isSaid !== 'by rules'
}

/** All names of dimensions that come with the data: tags (inherited ones too), price details, own columns, levels of trees. */
export const foundDimensions = (entries: Entries): string[] => dimensionKinds.flatMap(({ found }) => found?.(entries) ?? [])
