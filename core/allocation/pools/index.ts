import { z } from 'zod'
import { byLookup } from './by-lookup'
import { byMeasure } from './by-measure'
import { directCost } from './direct-cost'
import { even } from './even'
import type { KnownLookups, Needs, PoolMethod } from './pool-method'
import { quantity } from './quantity'
import { shares } from './shares'

/** Every way to divide a pool: plans, their checks, statements and lists are made of it. */
export const poolMethods = [directCost, even, shares, quantity, byMeasure, byLookup] as const

/** A pool as a plan writes it. */
export const pool = z.discriminatedUnion('method', poolMethods.map(({ schema }) => schema) as never) as unknown as z.ZodType<Pool>
export type { Among } from './pool-base'
export type Pool = z.infer<(typeof poolMethods)[number]['schema']>

const methodOf = (own: Pool) => poolMethods.find(({ method }) => method === own.method) as PoolMethod<string, Pool>
export const poolLabel = (own: Pool): string => methodOf(own).label(own)
export const poolNeeds = (own: Pool): Needs => methodOf(own).needs(own)
/** Ways to divide as a list names them. */
export const poolTitles = poolMethods.map(({ method, title }) => ({ method, title }))
/** A pool divided in another way from now on. @param measures names of the business measures that there are. */
export const dividedBy = (
  { id, name, owner, among }: Pool,
  method: Pool['method'],
  lookups: KnownLookups,
  measures: readonly string[] = [],
): Pool => {
  const base = { id, name, ...(owner === undefined ? {} : { owner }), ...(among ? { among } : {}) }
  return (poolMethods.find(one => one.method === method) as unknown as PoolMethod<string, Pool>).begin(base, lookups, measures)
}
