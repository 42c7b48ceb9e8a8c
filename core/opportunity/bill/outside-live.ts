import type { BilledResource } from './billed-resource'

/** Values of the environment's tag that stand for what customers use; common practice, no source. */
const liveWords = new Set(['live', 'prod', 'production'])

/** The environment that a resource is tagged with, where that is not what customers use; null else, and for what has no such tag. */
export const outsideLive = ({ environment }: Pick<BilledResource, 'environment'>): string | null =>
  environment !== null && !liveWords.has(environment.toLowerCase()) ? environment : null
