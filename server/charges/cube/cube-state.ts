import { chargesWithin, type Bound } from '../../../core/allocation/bound'
import { centresWithin } from '../../../core/allocation/tree'
import { centreCoding, noPlans, type Plans } from '../../../core/allocation/centre-coding'
import { allocationPlanSchema, type AllocationPlan } from '../../../core/allocation/plan'
import type { DictionaryName } from '../../../core/focus/star'
import type { Rate } from '../../../core/money/rates'
import { nothingMeasured, type MeasuredTable } from '../../../core/measured/measured-table'
import { earlierCard, type RateCard } from '../../../core/ratecard/rate-card'
import type { UpliftFacts } from '../../../core/allocation/uplift-lines'
import type { StoredUplift } from '../../../core/uplift/uplift-set'
import { usedSkus } from '../../../core/uplift/used-sku'
import { skuMeanings, type SkuMeaning } from '../../../core/ratecard/sku-meanings'
import { periodKey, Cube, type SourcePeriod } from '../../../core/spend/cube'
import type { CubePart } from '../../../core/spend/part'
import type { MeasureMonths } from '../../../core/unit-cost/measure-months'
import { lookup, referenceBody } from '../../../shared/contracts/spend-settings'
import type { Entry } from '../entry-sql'
import { decodeSegment } from '../segment-codec'
import type { Beside } from '../../stores/beside'
import { factsOf, type CubeFacts } from './cube-facts'

export type PeriodName = { source: string; billingPeriodStart: string }
/** Entries as the JSON text of a list. */
export type NewEntries = { dictionary: DictionaryName; text: string }
/** The charges of a billing period as they are kept, of which load, and how many there are to be. */
export type StagedPeriod = Omit<SourcePeriod, 'segments' | 'loadId'> & { loadId: number; rows: number; segments: Uint8Array[] }
/** What makes everything staged count, at once; where nothing is said beside the charges, what was known stays. */
export type CubeUpdate = { revision: number; gone: PeriodName[] } & { beside?: Beside }

/** All that whoever asks may see of the charges, and what is known beside them at the moment. */
export type Known = {
  cube: Cube
  /** All charges, for what is worked out of all and then cut to what may be seen. */
  whole: Cube
  /** Where the charges come from, where they are a part of all. */
  part: CubePart | null
  bound: Bound | null
  plans: Plans
  rates: readonly Rate[]
  meanings: ReadonlyMap<string, SkuMeaning>
  /** The currency that the company reports in, where it has said so. */
  reportCurrency: string | null
  /** Business measures by month and cost centre, of all trees. */
  measures: readonly MeasureMonths[]
  /** The organisation's uplifts, and what SKUs are of. */
  uplifts: UpliftFacts
  facts: () => CubeFacts
  /** The newest rate card of each provider. */
  cards: ReadonlyMap<string, RateCard>
  /** What was measured lately, hour by hour, whoever measured it. */
  measured: MeasuredTable
  /** What was worked out at length, until anything changes. */
  remembered: Map<string, unknown>
}

/** So many bounds are remembered with what lies within them. */
const MOST_BOUNDS = 16

const nameOf = ({ source, billingPeriodStart }: PeriodName): PeriodName => ({ source, billingPeriodStart })
const keyOf = (name: PeriodName) => periodKey(name.source, name.billingPeriodStart)

/** The charges in memory and what is known beside them. */
export class CubeState {
  readonly cube = new Cube()
  revision = 0
  /** Counts what changes the answers to questions. */
  changes = 0
  #plans: Plans = noPlans
  #rates: Rate[] = []
  #meanings = new Map<string, SkuMeaning>()
  #reportCurrency: string | null = null
  #measures: MeasureMonths[] = []
  #uplifts: UpliftFacts = { sets: [], skus: new Map() }
  #cards = new Map<string, RateCard>()
  #measured: MeasuredTable = nothingMeasured
  #staged = new Map<string, SourcePeriod | PeriodName>()
  #damaged = new Map<string, PeriodName>()
  /** What whoever asks sees, by their bound; forgotten with every change. */
  #known = new Map<string, Known>()

  constructor() {
    this.cube.setCentres((own, tree, shows) => centreCoding(this.#plans, tree, dimension => own.coding(dimension), shows))
  }

  /** What someone sees: all, or what lies within a bound. The bound stands before everything that is remembered of answers. */
  known(bound: Bound | null): Known {
    const key = JSON.stringify(bound && [[...bound.centres].sort(), bound.seesPools])
    const before = this.#known.get(key)
    if (before) return before
    const part = bound && chargesWithin(this.cube, this.#plans.newest?.centres ?? [], bound)
    const own = {
      ...{ cube: part?.cube ?? this.cube, whole: this.cube, part, bound },
      ...{ plans: this.#plans, rates: this.#rates, meanings: this.#meanings, reportCurrency: this.#reportCurrency },
      ...{ measures: this.#measures, uplifts: this.#uplifts, cards: this.#cards, measured: this.#measured },
    }
    let facts: CubeFacts | null = null
    const made: Known = { ...own, facts: () => (facts ??= factsOf(own, [...this.#damaged.values()])), remembered: new Map() }
    if (this.#known.size >= MOST_BOUNDS) this.#known.delete([...this.#known.keys()][0]!)
    this.#known.set(key, made)
    return made
  }

  /** Dictionary entries, before the charges that need them. */
  enter({ dictionary, text }: NewEntries): void {
    for (const [id, ...values] of JSON.parse(text) as Entry[]) this.cube.addEntry(dictionary, id, values)
  }

  /** Charges that count with the next update. */
  stage(period: StagedPeriod): void {
    const segments = period.segments.map(bytes => decodeSegment(bytes, currency => this.cube.currencyCode(currency)))
    const whole = segments.filter(segment => segment !== null)
    const isWhole = whole.length === segments.length && whole.reduce((n, { rows }) => n + rows, 0) === period.rows
    const { rows: _, ...own } = period
    this.#staged.set(keyOf(period), isWhole ? { ...own, segments: whole } : nameOf(period))
  }

  /** Makes what is staged count. */
  update(update: CubeUpdate): void {
    if (update.beside) this.#takeBeside(update.beside)
    for (const name of update.gone) {
      this.cube.removePeriod(name.source, name.billingPeriodStart)
      this.#damaged.delete(keyOf(name))
      this.#staged.delete(keyOf(name))
    }
    for (const [key, period] of this.#staged) {
      if ('segments' in period) {
        this.cube.setPeriod(period)
        this.#damaged.delete(key)
      } else {
        this.cube.removePeriod(period.source, period.billingPeriodStart)
        this.#damaged.set(key, period)
      }
    }
    this.#staged.clear()
    this.revision = update.revision
    this.#changed()
  }

  /** Takes up what is known beside the charges. */
  refer(beside: Beside): void {
    this.#takeBeside(beside)
    this.#changed()
  }

  /** Takes up what was measured lately. */
  measure(measured: MeasuredTable): void {
    this.#measured = measured
    this.#changed()
  }

  #changed(): void {
    this.#known.clear()
    this.changes++
  }

  #takeBeside(beside: Beside): void {
    const {
      skus,
      reportCurrency,
      requiredTags: _,
      ...said
    } = referenceBody.parse(beside.reference === null ? {} : JSON.parse(beside.reference))
    this.#reportCurrency = reportCurrency
    const plans = new Map<string, AllocationPlan>()
    const planOf = (text: string) => {
      const plan = plans.get(text) ?? allocationPlanSchema.parse(JSON.parse(text))
      plans.set(text, plan)
      return plan
    }
    this.#plans = {
      newest: beside.plan === null ? null : planOf(beside.plan),
      closed: Object.fromEntries(Object.entries(beside.closed).map(([month, text]) => [month, planOf(text)])),
    }
    const lookups = Object.fromEntries(beside.lookups.map(({ name, text }) => [name, lookup.parse(JSON.parse(text))]))
    const cards = beside.cards.map(text => earlierCard(JSON.parse(text)) as RateCard)
    this.#meanings = skuMeanings(cards, skus)
    this.#cards = new Map(cards.map(card => [card.provider, card]))
    this.#uplifts = { sets: JSON.parse(beside.uplifts) as StoredUplift[], skus: usedSkus(cards) }
    const charged = Object.fromEntries([...this.#meanings].map(([sku, { charged }]) => [sku, charged]))
    this.cube.setReference({ ...said, charged, lookups })
    this.#rates = JSON.parse(beside.rates) as Rate[]
    this.#measures = JSON.parse(beside.measures) as MeasureMonths[]
  }
}

/** Whether a cost centre or pool, or what is on none, is for whoever asks. */
export function isWithin({ bound, plans }: Known): (target: string | null) => boolean {
  if (!bound) return () => true
  const ids = centresWithin(plans.newest?.centres ?? [], bound)
  return target => target !== null && ids.has(target)
}
