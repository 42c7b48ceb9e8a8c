import { minorDecimals } from '../money/currency'
import type { Rate } from '../money/rates'
import { scaledText, type Scaled } from '../money/scaled'
import { sumByCurrency } from '../spend/plain-groups'
import type { Cube } from '../spend/cube'
import { groupInSlices } from '../spend/group'
import type { Groups } from '../spend/groups'
import type { Coding } from '../spend/layers'
import type { CostMeasure, Grouping } from '../spend/question'
import { segmentsReached } from '../spend/reached'
import type { Slices } from '../spend/slices'
import { addDays, monthEnd } from '../time/day'
import type { MeasureMonths } from '../unit-cost/measure-months'
import { alikeCharges } from './alike-charges'
import { basisOf } from './bases'
import { rulesInForce } from './centre-days'
import { caughtBy, inSizeOrder, leftOver, type UnallocatedGroup } from './caught'
import { ruleDimensions, type CentreTree, type Pool } from './plan'
import { poolNeeds } from './pools'
import type { Needs } from './pools/pool-method'
import { ruleCoding, ruleCodingInSlices } from './rule-coding'
import { shareOut, type Undivided } from './share-out'
import { upliftLines, upliftsOnTargets, type UpliftFacts, type UpliftLine } from './uplift-lines'
import { prove, statementsOf, type ProofLine, type Statement } from './statement'

export type RuleCatch = { rule: string; currency: string; amount: string; count: number }
export type PoolAmount = { pool: string; currency: string; amount: string }

export type Settlement = {
  /** By currency, the largest total first. */
  statements: Statement[]
  catches: RuleCatch[]
  /** What rules put on pools, before it is divided. */
  pools: PoolAmount[]
  unallocated: UnallocatedGroup[]
  proof: ProofLine[]
  /** Where the money of the pools came from and went, by provider: for the picture. */
  flows: { provider: string | null; target: string | null; currency: string; amount: string }[]
  /** The organisation's uplifts on what ran: beside the bill, in none of the above. */
  uplifts: UpliftLine[]
}

/**
 * Which month is settled, by which cost, in which currency direct costs are compared (null: in the pool's own), with which rates and
 * business measures of the tree.
 */
export type SettlementQuestion = {
  month: string
  measure: CostMeasure
  reportCurrency: string | null
  rates: readonly Rate[]
  measures?: readonly MeasureMonths[]
  /** The organisation's uplifts, and what SKUs are of; nothing for none. */
  uplifts?: UpliftFacts
}

/**
 * Puts a billing month's charges on the cost centres of a tree: each charge lands by the first rule that holds; what lands on a pool is
 * divided; what no rule catches stays visibly on none. Done in slices, a segment of charges each, so that others are answered in between;
 * charges and what is known beside them must not change meanwhile.
 */
export function* settleInSlices(
  cube: Cube,
  tree: CentreTree,
  { month, measure, reportCurrency, rates, measures = [], uplifts }: SettlementQuestion,
): Slices<Settlement> {
  // charges of a billing month may lie in any charge period: a correction in October can be about September
  const question: Grouping = {
    ...{ start: '1970-01-01', end: '2200-01-01', keep: {}, leaveOut: {}, billingMonth: month },
    ...{ splitBy: [], grain: null, measures: [measure] },
  }
  const rule = yield* ruleCodingInSlices(rulesInForce(tree), cube)
  const groups = yield* groupInSlices(cube, { ...question, splitBy: ['ProviderName', 'ServiceName'] }, { splits: [rule] })
  const caught = caughtBy(tree, groups)
  const alike = [...new Set(['SubAccountName', ...ruleDimensions(tree)])]
  const uncaught = { coding: rule, allowed: Uint8Array.from(rule.values, (_, place) => (place === 0 ? 1 : 0)) }
  const charges = yield* alikeCharges(cube, alike, segmentsReached(cube, question))
  const left = yield* groupInSlices(cube, question, { splits: [charges.coding], filters: [uncaught] })
  const ofNobody = yield* leftOver(left, alike, charges)
  const bill = yield* groupInSlices(cube, question)
  const quantities = new Map<string, Map<string, Scaled>>()
  const known = new Map<string, ByUnit>()
  for (const pool of tree.pools) {
    const needs = poolNeeds(pool)
    if (needs.basis !== 'quantity') continue
    // pools that go by the same charges are measured at once
    const { unit, ...measure } = needs
    const key = JSON.stringify(measure)
    const byUnit = known.get(key) ?? (yield* measured(cube, question, tree, rule, needs))
    known.set(key, byUnit)
    quantities.set(pool.id, byUnit.get(unit) ?? new Map<string, Scaled>())
  }
  const facts = {
    ...{ centres: tree.centres, direct: caught.direct.sums, services: caught.services, quantities },
    ...{ lookups: cube.reference.lookups, measures },
    ...{ reportCurrency, rates, day: addDays(monthEnd(month), -1) },
  }
  const basis = (pool: Pool, currency: string) => basisOf(pool, currency, facts)
  const sharing = { pools: tree.pools, serving: tree.serving, basis, decimals: minorDecimals }
  const { shares, undivided } = shareOut({ ...sharing, pooled: caught.pooled.sums })
  const onUse = uplifts ? yield* upliftsOnTargets(cube, { ...question, measure }, { month, rule, rules: tree.rules, ...uplifts }) : []
  const statements = statementsOf(caught, shares)
  yield
  // what nobody owns is in order already
  const unallocated = undivided.length ? inSizeOrder([...undivided.map(undividedGroup), ...ofNobody]) : ofNobody
  yield
  const asText = <T extends { amount: Scaled }>(one: T) => ({ ...one, amount: scaledText(one.amount) })
  return {
    statements,
    unallocated,
    catches: caught.catches.map(asText),
    pools: [...caught.pooled.sums].flatMap(([pool, sums]) => [...sums].map(([currency, amount]) => asText({ pool, currency, amount }))),
    proof: prove(statements, unallocated, totalsOf(bill)),
    flows: caught.flows.map(asText),
    uplifts: upliftLines(onUse, { ...sharing, pooled: caught.pooled.sums }),
  }
}

/** What is on a pool that cannot be divided lies on nobody. */
const undividedGroup = ({ pool: { id, name }, currency, amount, why }: Undivided): UnallocatedGroup => ({
  ...{ values: {}, currency, amount: scaledText(amount), resources: 0, count: 0 },
  pool: { id, name, why },
})

const totalsOf = (groups: Groups) =>
  sumByCurrency(
    Array.from({ length: groups.size }, (_, group) => ({
      currency: groups.denomination(groups.kinds[group]!),
      amount: groups.sums[0]!.total(groups.cells[group]!),
    })),
  )

type ByUnit = Map<string, Map<string, Scaled>>

/** What charges that conditions leave measure, by unit and by the cost centre they are on. */
function* measured(
  cube: Cube,
  question: Grouping,
  { centres, rules }: CentreTree,
  rule: Coding,
  { measure, conditions }: Extract<Needs, { basis: 'quantity' }>,
): Slices<ByUnit> {
  const isCentre = new Set(centres.map(({ id }) => id))
  const meant = conditions.length ? ruleCoding([{ id: 'meant', conditions: [...conditions], target: '' }], cube) : null
  const by = measure === 'pricingQuantity' ? ('pricing unit' as const) : ('consumed unit' as const)
  const groups = yield* groupInSlices(
    cube,
    { ...question, measures: [measure], by },
    { splits: [rule], filters: meant ? [{ coding: meant, allowed: Uint8Array.of(0, 1) }] : [] },
  )
  const found: ByUnit = new Map()
  for (let group = 0; group < groups.size; group++) {
    const place = groups.codes[0]![group]!
    const target = place === 0 ? null : rules[place - 1]!.target
    if (target === null || !isCentre.has(target)) continue
    const unit = groups.denomination(groups.kinds[group]!)
    const sums = found.get(unit) ?? new Map<string, Scaled>()
    found.set(unit, sums)
    sums.set(target, (sums.get(target) ?? 0n) + groups.sums[0]!.total(groups.cells[group]!))
  }
  return found
}
