import type { Cube } from '../spend/cube'
import { COST_CENTRE } from '../spend/dimension'
import { rowCodes } from '../spend/layers'
import { partOf, type CubePart } from '../spend/part'
import type { CentreTree, CostCentre } from './plan'
import type { Settlement } from './settle'
import type { Statement } from './statement'
import { centresWithin } from './tree'

/** What someone sees of the company: cost centres of the first tree, each with all that lies below it. */
export type Bound = {
  centres: readonly string[]
  /** Whether they see, of what they bear of a pool, what the whole of it is and how it was measured. */
  seesPools: boolean
}

/** The charges that are directly on cost centres within a bound. @param centres none where no plan is there: then nothing is within. */
export function chargesWithin(cube: Cube, centres: readonly CostCentre[], bound: Pick<Bound, 'centres'>): CubePart {
  const { layers, values } = cube.coding(COST_CENTRE)
  const ids = centresWithin(centres, bound)
  const isWithin = Uint8Array.from(values, value => (value !== null && ids.has(value) ? 1 : 0))
  return partOf(cube, of => {
    const codeOf = rowCodes(layers, of)
    const found = new Uint32Array(of.segment.rows)
    let count = 0
    for (let row = 0; row < of.segment.rows; row++) if (isWithin[codeOf(row)] === 1) found[count++] = row
    return found.slice(0, count)
  })
}

/**
 * What someone sees of a settled month: the statements of their cost centres. What is not theirs (the bill, pools, what is on none) is
 * left out, and with it the proof; of shared cost they see which pool, how it is divided and what is borne, and the rest of a share only
 * where they may see pools.
 */
export function settlementWithin(settlement: Settlement, { centres, rules }: CentreTree, bound: Bound): Settlement {
  const within = centresWithin(centres, bound)
  const own = new Set(rules.filter(({ target }) => within.has(target)).map(({ id }) => id))
  const seen = settlement.statements.filter(({ centre }) => within.has(centre))
  return {
    statements: bound.seesPools ? seen : seen.map(borne),
    catches: settlement.catches.filter(({ rule }) => own.has(rule)),
    pools: [],
    unallocated: [],
    proof: [],
    uplifts: settlement.uplifts.filter(({ centre }) => centre !== null && within.has(centre)),
    flows: settlement.flows.filter(({ target }) => target !== null && within.has(target)).sort(byPlace),
  }
}

/** In an order that what is left out has no part in. */
const byPlace = (a: Settlement['flows'][number], b: Settlement['flows'][number]) => (placeOf(a) < placeOf(b) ? -1 : 1)
const placeOf = ({ target, provider, currency }: Settlement['flows'][number]) => JSON.stringify([target, provider, currency])

/** A statement without what lies behind its shares. */
const borne = (statement: Statement): Statement => ({
  ...statement,
  lines: statement.lines.map(line => (line.kind === 'share' ? { ...line, ofPool: null, base: null, note: null } : line)),
})
