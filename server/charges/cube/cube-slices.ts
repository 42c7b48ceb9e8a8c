import { settlementWithin } from '../../../core/allocation/bound'
import { adjustmentsLeft, type Adjustment } from '../../../core/allocation/closing/adjustments'
import { movedCharges, type MovedCharges } from '../../../core/allocation/moved-charges'
import { rateFinder } from '../../../core/money/rates'
import { readBill } from '../../../core/opportunity/bill/read-bill'
import type { BilledResource } from '../../../core/opportunity/bill/billed-resource'
import { costOtherwise, usedSkus, type CostOtherwise, type UsedSku } from '../../../core/opportunity/otherwise/cost-otherwise'
import type { OtherwiseContext } from '../../../core/opportunity/otherwise/offer'
import type { OwnAsked, OwnRule } from '../../../core/opportunity/own/own-finds'
import { sourceDays } from '../../../core/spend/freshness'
import type { TimelessScope } from '../../../core/spend/question'
import { treeOf, type AllocationPlan, type CentreTree } from '../../../core/allocation/plan'
import { settleInSlices, type Settlement, type SettlementQuestion } from '../../../core/allocation/settle'
import type { RateCard } from '../../../core/ratecard/rate-card'
import { measuredIn } from '../../../core/measured/measured-table'
import { lookThroughBill, type LookedThrough } from '../../../core/opportunity/bill/look-through-bill'
import { thresholdDetectors } from '../../../core/opportunity/detectors'
import { ownRule } from '../../../core/opportunity/detectors/own-rule'
import type { Opportunity } from '../../../core/opportunity/opportunity'
import { settingsFrom, type SetThreshold } from '../../../core/opportunity/thresholds'
import type { Cube } from '../../../core/spend/cube'
import type { Lookup } from '../../../core/spend/lookup'
import type { MeasureMonths } from '../../../core/unit-cost/measure-months'
import type { Slices } from '../../../core/spend/slices'
import type { SettledBeside } from '../../../shared/contracts/allocation'
import type { Known } from './cube-state'

/** In which currency direct costs are compared, with which rates; null for those of today. */
export type RatesAsked = Pick<SettlementQuestion, 'reportCurrency' | 'rates'> | null
/** A month to be settled in a tree of a plan. `beside` is told with the reply as it is. */
export type SettlementAsked = Pick<SettlementQuestion, 'month' | 'measure'> & {
  tree: string | null
  plan: AllocationPlan
  rates: RatesAsked
  /** Lookups in place of those of their names; null for none. */
  lookups?: Record<string, Lookup | null> | undefined
  /** Business measures in place of those of their names. */
  measures?: readonly MeasureMonths[] | undefined
  /** `none` where nobody looks at uplifts. */
  uplifts?: 'none' | undefined
  beside: SettledBeside
}
/** A closed month of which is asked what it would come to now. Plans are null where they would change nothing. */
export type AdjustmentsAsked = Pick<SettlementAsked, 'month' | 'measure' | 'tree' | 'rates'> & {
  /** When it was closed, and which plan holds for it since: what was found for these is remembered. */
  key: string
  kept: Pick<Settlement, 'statements' | 'unallocated'>
  keptPlan: AllocationPlan
  plan: AllocationPlan | null
  posted: readonly Adjustment[]
}

/** @param uplifts nothing where none are asked for. */
function* settle(
  { whole, ...known }: Omit<Known, 'uplifts'>,
  asked: Omit<SettlementAsked, 'beside' | 'uplifts'>,
  uplifts?: Known['uplifts'],
): Slices<Settlement> {
  const { tree, plan, rates, lookups, month, measure } = asked
  const centres = treeOf(plan, tree)
  if (!centres) throw new Error('there is no such tree of cost centres')
  const { reportCurrency, rates: list } = rates ?? known
  const cube = knowing({ whole }, lookups)
  const others = asked.measures ?? []
  const kept = known.measures.filter(({ name }) => !others.some(other => other.name === name))
  const measures = [...kept, ...others].filter(one => one.tree === tree)
  return yield* settleInSlices(cube, centres, { month, measure, reportCurrency, rates: list, measures, uplifts })
}

/** Which charges of a month would be elsewhere under another plan, or with other lookups. */
export type MovedAsked = Pick<SettlementAsked, 'month' | 'measure' | 'tree' | 'lookups'> & { now: AllocationPlan; plan: AllocationPlan }

/** The charges with lookups in place of those of their names. */
const knowing = ({ whole }: Pick<Known, 'whole'>, lookups: SettlementAsked['lookups']): Cube =>
  lookups ? whole.knowing({ ...whole.reference, lookups: withOthers(whole.reference.lookups, lookups) }) : whole

/** Lookups with others in place of those of their names. */
const withOthers = (known: Record<string, Lookup>, others: Record<string, Lookup | null>): Record<string, Lookup> =>
  Object.fromEntries(Object.entries({ ...known, ...others }).flatMap(([name, own]) => (own ? [[name, own] as const] : [])))

const noTree: CentreTree = { centres: [], pools: [], rules: [] }

/** By which thresholds and cards it is looked for what can be saved, and what people look for beside. */
export type SavingsAsked = { thresholds: SetThreshold[]; cards: RateCard[]; own: OwnAsked }
/** What things that are charged for would cost otherwise: a SKU among those of some charges; without one the dearest. */
export type OtherwiseAsked = {
  cards: RateCard[]
  scope: TimelessScope
  sku: { provider: string; sku: string } | null
  /** The way that is told resource by resource. */
  way: string | null
}

/** What takes longer than others should wait, made in slices; written here but for the revision. */
export const sliced = {
  *settlement(known: Known, { beside, uplifts, ...asked }: SettlementAsked): Slices<Settlement & SettledBeside> {
    // what is borne of a pool depends on all that others bear
    const settled = yield* settle(known, asked, uplifts === 'none' ? undefined : known.uplifts)
    const { bound } = known
    return { ...(bound ? settlementWithin(settled, treeOf(asked.plan, asked.tree)!, bound) : settled), ...beside }
  },

  /** Charges that something not saved puts elsewhere; a tree that one of the plans has not puts none anywhere. */
  *moved({ whole }: Known, { month, measure, tree, lookups, now, plan }: MovedAsked): Slices<MovedCharges> {
    const before = { cube: whole, tree: treeOf(now, tree) ?? noTree }
    return yield* movedCharges(before, { cube: knowing({ whole }, lookups), tree: treeOf(plan, tree) ?? noTree }, { month, measure })
  },

  /** What is left to adjust of a closed month, of all cost centres. */
  *adjustments(known: Known, { key, kept, keptPlan, plan, posted, ...asked }: AdjustmentsAsked): Slices<{ adjustments: Adjustment[] }> {
    const remembered = known.remembered.get(key)
    if (remembered) return remembered as { adjustments: Adjustment[] }
    const charges = yield* settle(known, { ...asked, plan: keptPlan })
    const rules = plan && treeOf(plan, asked.tree) ? yield* settle(known, { ...asked, plan }) : null
    const found = { adjustments: adjustmentsLeft({ month: asked.month, kept, charges, rules, posted }) }
    known.remembered.set(key, found)
    return found
  },

  /**
   * What can be saved by the bill and by what is measured of what it has, of what whoever asks may see of it: others' charges are not
   * even compared with. It goes by the newest cards, but for those that are named. What is found for one set of thresholds is remembered
   * until anything changes.
   */
  *savings({ cube, remembered, ...known }: Known, { thresholds, cards: present, own }: SavingsAsked): Slices<LookedThrough> {
    const cards = cardsNow(known, present)
    const asked = JSON.stringify([thresholds, present.map(({ provider, validFrom }) => [provider, validFrom]), own])
    const before = remembered.get(SAVINGS) as { asked: string; seen: LookedThrough } | undefined
    if (before?.asked === asked) return { ...before.seen }
    const { charged } = cube.reference
    const beside = { asked: own, rate: rateNow(cube, known.rates) }
    const measured = measuredIn(known.measured)
    const seen = yield* lookThroughBill(cube, { cards, charged }, thresholdDetectors, settingsFrom(thresholds), measured, beside)
    remembered.set(SAVINGS, { asked, seen })
    return { ...seen }
  },

  /** One of them by its id, as it is found now; null where it is not. */
  *saving(known: Known, { id, ...asked }: SavingsAsked & { id: string }): Slices<{ found: Opportunity | null }> {
    const { found } = yield* sliced.savings(known, asked)
    return { found: found.find(one => one.id === id) ?? null }
  },

  /** What a rule of one's own would find, by itself: what is remembered of everything stays. */
  *ruled({ cube, ...known }: Known, { cards: present, rule }: { cards: RateCard[]; rule: OwnRule }): Slices<{ found: Opportunity[] }> {
    const facts = { cards: cardsNow(known, present), charged: cube.reference.charged }
    const own = { asked: { chosen: [], rules: [rule] }, rate: rateNow(cube, known.rates) }
    const { found } = yield* lookThroughBill(cube, facts, [ownRule], settingsFrom([]), undefined, own)
    return { found }
  },

  /** What is charged for within a scope that can be priced otherwise, and what one SKU of it would cost otherwise. */
  *otherwise({ cube, ...known }: Known, { cards: present, scope, sku, way }: OtherwiseAsked): Slices<OtherwiseFound> {
    const cards = cardsNow(known, present)
    const facts = { cards, charged: cube.reference.charged }
    const narrowed = yield* readBill(cube, facts, scope)
    const asked = new Set(narrowed.flatMap(one => one.uses.map(use => useKey(one, use.sku))))
    // with all that is charged for them, whatever of it the scope holds
    const keep = { ResourceId: narrowed.map(({ id }) => id) }
    const resources = narrowed.length ? yield* readBill(cube, facts, { keep, leaveOut: {} }) : []
    const skus = usedSkus(resources, (one, sku) => asked.has(useKey(one, sku)))
    const chosen = sku ?? skus[0] ?? null
    const own = chosen ? resources.filter(one => one.provider === chosen.provider && asked.has(useKey(one, chosen.sku))) : []
    const found = chosen && (yield* costOtherwise(own, chosen.sku, { cards, rate: rateNow(cube, known.rates) }, way))
    return { skus: skus.slice(0, MOST_SKUS), more: Math.max(0, skus.length - MOST_SKUS), found }
  },
}
/** What `otherwise` finds. */
export type OtherwiseFound = { skus: UsedSku[]; more: number; found: CostOtherwise | null }
const MOST_SKUS = 200
const useKey = ({ provider, id }: BilledResource, sku: string) => JSON.stringify([provider, id, sku])

/** The newest card of each provider, but for those that are named. */
const cardsNow = ({ cards }: Pick<Known, 'cards'>, present: readonly RateCard[]) =>
  new Map([...cards, ...present.map(card => [card.provider, card] as const)])

/** The rates of the last day that charges are known of. */
function rateNow(cube: Cube, rates: Known['rates']): OtherwiseContext['rate'] {
  const day = sourceDays(cube).reduce((last, { lastDay }) => (lastDay > last ? lastDay : last), '')
  const find = rateFinder(rates)
  return (from, to) => find(from, to, day)
}
const SAVINGS = 'savings'
export type CubeSlices = typeof sliced
