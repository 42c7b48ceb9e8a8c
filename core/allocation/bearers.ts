import { monthOf } from '../time/day'
import type { Scaled } from '../money/scaled'
import { centresWithin } from './tree'
import { isInMonth } from './centre-days'
import { poolTargets, type CostCentre, type Pool } from './plan'

/** Who can bear of a pool in a month. */
export type Bearers = {
  /** `all` that may bear; `everyone` those that bear even parts. */
  centres: { all: ReadonlySet<string>; everyone: readonly string[] }
  /** Why nobody does, or not those who are named; null where there is nothing against it. */
  refused: string | null
}

export type BearerFacts = {
  centres: readonly CostCentre[]
  /** Direct cost by cost centre and currency. */
  direct: ReadonlyMap<string, ReadonlyMap<string, Scaled>>
  /** The month's last day. */
  day: string
}

/**
 * Among whom a pool is divided: cost centres that are there in the month. Even parts go to those that have none of them below; a pool that
 * names one that is not there, or nobody, is refused by name.
 */
export function bearersOf(pool: Pool, { centres, direct, day }: BearerFacts): Bearers {
  const month = monthOf(day)
  const there = centres.filter(one => isInMonth(one, month))
  const isThere = new Set(there.map(({ id }) => id))
  const { among } = pool
  const named = among?.of === 'list' ? among.centres : poolTargets(pool)
  const absent = centres.filter(({ id }) => named.includes(id) && !isThere.has(id))
  const of = (meant: readonly CostCentre[], why: string): Bearers => {
    const parents = new Set(meant.map(({ parent }) => parent))
    const everyone = among?.of === 'list' ? meant : meant.filter(({ id }) => !parents.has(id))
    const refused = absent.length
      ? `${absent.map(({ name }) => `«${name}»`).join(', ')} ${absent.length === 1 ? 'is' : 'are'} not there in ${month}: say who bears it instead`
      : everyone.length
        ? null
        : why
    return { centres: { all: new Set(meant.map(({ id }) => id)), everyone: everyone.map(({ id }) => id) }, refused }
  }
  switch (among?.of) {
    case 'list':
      return of(
        there.filter(({ id }) => among.centres.includes(id)),
        `none of its cost centres is there in ${month}`,
      )
    case 'subtree': {
      const within = centresWithin(centres, { centres: [among.centre] })
      const top = centres.find(({ id }) => id === among.centre)
      return of(
        there.filter(({ id }) => within.has(id)),
        `nobody is there in ${month} at or below «${top?.name ?? among.centre}»`,
      )
    }
    case 'with cost': {
      const has = ({ id }: CostCentre) => [...(direct.get(id)?.values() ?? [])].some(amount => amount !== 0n)
      return of(there.filter(has), `nobody has cost of their own in ${month}`)
    }
    default:
      return of(there, `no cost centre is there in ${month}`)
  }
}
