import type { CentreShown } from '../dimension'
import type { Entries } from '../entries'
import type { Coding } from '../layers'

/** What codes are made of: entries, the service of each resource, sources, codings of other dimensions, whose a charge is. */
export type CodingOf = {
  entries: Entries
  services: () => Map<string, string>
  /** Under which names charges were delivered, in the order of the alphabet. */
  sources: () => string[]
  coding: (dimension: string) => Coding
  centres: (tree: string | null, shows: CentreShown) => Coding | null
}

/** The headings under which dimensions stand in lists, in their order. */
export const dimensionGroups = [
  'cost centres and lookups',
  'accounts and containers',
  'services and SKUs',
  'resources and places',
  'tags',
  'machines and what a price is for',
  'charges and invoices',
  'prices',
  'commitments',
  'the provider’s own columns',
  'others',
] as const
export type DimensionGroup = (typeof dimensionGroups)[number]

/** One kind of thing that spend can be split by and narrowed to: how its names are written, what its values are, how it is spoken of. */
export type DimensionKind<A> = {
  kind: string
  /** What a name says, where it is one of this kind; else null. */
  read(name: string): A | null
  /** Codes of its values. */
  coding(of: CodingOf, asked: A, name: string): Coding
  /** The names of this kind that what is loaded has values for, where they come with the data. */
  found?: (entries: Entries) => string[]
  /** Whether its values depend on which charges there are, and not on their entries alone. */
  changesWithCharges?: boolean
  /** Whether its values are said by lookups or rules, so that no lookup goes by it; and whether by rules, which then cannot look at it. */
  isSaid?: 'by lookups' | 'by rules'
  /** What it is called in a sentence. */
  label(asked: A, name: string): string
  /** What money without a value is called, where it is not `no` and the label. */
  none?: string
  group(asked: A): DimensionGroup
}
