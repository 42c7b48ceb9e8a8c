import { directCost } from './direct-cost'
import type { PoolMethod } from './divide'

/** Every way to divide a pool, by the name a plan uses. */
export const poolMethods: Record<string, PoolMethod> = { [directCost.method]: directCost }
