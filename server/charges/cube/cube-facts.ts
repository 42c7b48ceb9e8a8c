import type { Bound } from '../../../core/allocation/bound'
import type { Plans } from '../../../core/allocation/centre-coding'
import type { Cube } from '../../../core/spend/cube'
import { ALLOCATION_RULE, centreDimension, columnDimensions } from '../../../core/spend/dimension'
import { foundDimensions } from '../../../core/spend/dimensions'
import { inheritedTagKeys } from '../../../core/spend/dimensions/tag-layers'
import { dataDays, sourceDays, type SourceDays } from '../../../core/spend/freshness'
import { hourOf } from '../../../core/spend/segment'

export type CubeFacts = {
  columns: string[]
  unused: { name: string; since: string }[]
  found: string[]
  inherited: string[]
  tags: string[]
  firstDay: string | null
  lastDay: string | null
  currencies: string[]
  charges: number
  hourly: boolean
  sources: SourceDays[]
  /** Billing periods whose kept charges are damaged: they are in no answer, and whose charges were in them nobody can say. */
  damaged: { source: string; billingPeriodStart: string }[]
  /** The names of the cost centres that whoever asks sees, with all below them; null for everything. */
  within: string[] | null
  /** The currency that the company reports in, where it has said so. */
  reportCurrency: string | null
}

/** What charges are there, and what they can be split by. */
export function factsOf(
  { cube, plans: { newest }, bound, reportCurrency }: { cube: Cube; plans: Plans; bound: Bound | null; reportCurrency: string | null },
  damaged: CubeFacts['damaged'],
): CubeFacts {
  const used = columnDimensions.filter(({ name }) => cube.coding(name).values.length > 1)
  const trees = newest ? [null, ...(newest.trees ?? []).map(({ id }) => id)] : []
  // rules are for whoever sees the whole company
  const byRules = newest && !bound ? [ALLOCATION_RULE] : []
  const found = [...foundDimensions(cube), ...trees.map(centreDimension), ...byRules]
  const sources = sourceDays(cube)
  return {
    columns: used.map(({ name }) => name),
    unused: columnDimensions.filter(column => !used.includes(column)),
    found,
    inherited: inheritedTagKeys(cube),
    tags: found.filter(name => name.startsWith('Tags/')),
    currencies: [...cube.currencies].sort(),
    charges: cube.rows,
    hourly: [...cube.segments()].some(({ time }) => time.starts.some(start => hourOf(start) % 24 !== 0)),
    firstDay: null,
    lastDay: null,
    ...dataDays(sources),
    sources,
    damaged,
    within: bound && bound.centres.map(id => newest?.centres.find(centre => centre.id === id)?.name ?? id),
    reportCurrency,
  }
}
