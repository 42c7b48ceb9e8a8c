import type { Rate } from '../../money/rates'
import { isPooled } from '../../ratecard/price-quantity'
import type { RateCard } from '../../ratecard/rate-card'
import type { Working } from '../../working/working'
import { upliftsFor, type StoredUplift } from '../../uplift/uplift-set'
import { findKind } from '../components'
import { fieldProblem } from '../components/field'
import {
  applies,
  completeInputs,
  hasPlace,
  makeBuilder,
  none,
  NotPriced,
  type Charges,
  type ComponentKind,
  type Inputs,
  type Place,
  type Refusal,
} from '../components/kind'
import { startOf, type Component, type Estimate } from '../estimate'
import { lineKey, type Drawn } from './line-pools'
import { findPlace } from './place'
import { mustFindRate } from './rates'
import { inputsElsewhere, type Replaced } from '../scenarios/equivalent'
import { splitRecurring, waysOf, type Way } from './ways-to-pay'

/** What prices come from: the cards that the estimate names, the organisation's uplifts, and the dated exchange rates. */
export type Prices = { cards: ReadonlyMap<string, RateCard>; uplifts: readonly StoredUplift[]; rates: readonly Rate[] }

export type Settings = { key: string; monthHours: number; prices: Prices; estimate: Estimate; currency: string }

/** A way to pay and what a row draws of lines under it. */
export type PlannedWay = Way & { drawn: readonly Drawn[]; amounts: readonly Working[] }

/** A row as it stands somewhere, or why it cannot. */
export type StandingRow = {
  id: string
  kind: ComponentKind | null
  inputs: Inputs
  place: Place | null
  /** What does not fit, by field; such a row counts as nothing and says so. */
  problems: Record<string, string>
  refusal: Refusal | null
  /** What had to be replaced for it to stand where a scenario has it. */
  replaced: Replaced[]
  /** Why it is not offered there. */
  notOffered: string | null
}

/** A row before its lines are priced: what it is where it stands, and what it draws. */
export type Plan = StandingRow & {
  priced: {
    charges: Charges
    uplifts: StoredUplift[]
    chosen: PlannedWay
    /** every way, the chosen one among them; made when someone looks */ ways: () => PlannedWay[]
    /** months of its own that differ; zero for none */ horizon: number
    /** shared lines that any of its ways draws on */ keys: string[]
  } | null
}

/** The variant that a row is of its kind: what its size or class cell says. */
export const variantOf = (kind: ComponentKind, inputs: Inputs): string | null => {
  const field = kind.fields.find(f => f.column === 'size')
  return field ? (inputs[field.name] ?? null) : null
}

/** The uplifts that hold for a row when the estimate begins. */
export function upliftsOfRow(
  sets: readonly StoredUplift[],
  kind: ComponentKind,
  inputs: Inputs,
  pattern: string | null,
  estimate: Pick<Estimate, 'month' | 'startsOn'>,
): StoredUplift[] {
  return kind.last
    ? []
    : upliftsFor(
        sets,
        { kind: kind.kind, variant: variantOf(kind, inputs), pattern, system: inputs.system ?? null, image: inputs.image || null },
        startOf(estimate),
      )
}

/**
 * @param rest the month of all other rows, for kinds priced after them.
 * @param isWished whether the way to pay is one that a scenario wishes for everything.
 */
export function planRow(component: Component, overrides: Inputs, settings: Settings, rest: Working = none, isWished = false): Plan {
  const { estimate, prices } = settings
  const kind = findKind(component.kind)
  const given = { ...component.inputs, ...overrides }
  const plan: Plan = {
    id: component.id,
    kind: kind ?? null,
    inputs: given,
    place: null,
    problems: {},
    refusal: null,
    replaced: [],
    notOffered: null,
    priced: null,
  }
  if (!kind) return { ...plan, problems: { kind: `there is no kind of component called «${component.kind}»` } }
  const ownWhere = component.inputs.where ?? ''
  const where = hasPlace(kind) ? (overrides.where ?? ownWhere) : ownWhere
  const place = findPlace(where, estimate, prices.cards)
  if (!place)
    return {
      ...plan,
      problems: {
        where: `no rate card is loaded for «${where || `${estimate.provider}, ${estimate.region}`}»; choose another place, or drop the card under Sources`,
      },
    }
  const home = findPlace(ownWhere, estimate, prices.cards) ?? place
  const moved = standsElsewhere(kind, given, overrides, home, place)
  if ('notOffered' in moved && moved.notOffered !== null)
    return {
      ...plan,
      inputs: { ...completeInputs(kind, given, home.card, home.region), where },
      place,
      problems: { [moved.field]: `not offered there: ${moved.notOffered}` },
      notOffered: moved.notOffered,
    }
  const inputs: Inputs = { ...moved.inputs, where }
  const at = { ...plan, inputs, place, replaced: moved.replaced }
  // a way to pay that is wished for everything counts where it is offered: else the row's own, else on-demand
  const pays = isWished ? kind.fields.find(field => field.name === 'pays') : undefined
  if (pays && fieldProblem(pays, inputs.pays!, place.card, place.region))
    inputs.pays = fieldProblem(pays, component.inputs.pays ?? 'on-demand', place.card, place.region)
      ? 'on-demand'
      : (component.inputs.pays ?? 'on-demand')
  const problems = problemsOf(kind, inputs, place, settings.monthHours)
  if (Object.keys(problems).length) return { ...at, problems, refusal: mendOf(kind, inputs, problems, settings.monthHours) }
  try {
    const priced = chargesOf(component, kind, inputs, place, settings, rest, isWished)
    return { ...at, inputs: { ...inputs, ...(inputs.pays !== undefined && { pays: priced.chosen.way }) }, priced }
  } catch (error) {
    if (!(error instanceof NotPriced)) throw error
    return { ...at, problems: { [error.refusal.field]: error.refusal.reason }, refusal: error.refusal }
  }
}

function standsElsewhere(kind: ComponentKind, given: Inputs, overrides: Inputs, home: Place, place: Place) {
  const own = completeInputs(kind, given, home.card, home.region)
  if (home.card === place.card && home.region === place.region) return { inputs: own, replaced: [] as Replaced[] }
  return inputsElsewhere(kind, own, home, place, new Set(Object.keys(overrides)))
}

function problemsOf(kind: ComponentKind, inputs: Inputs, place: Place, monthHours: number): Record<string, string> {
  const problems: Record<string, string> = {}
  for (const field of kind.fields) {
    const problem = applies(field, inputs, place) ? fieldProblem(field, inputs[field.name]!, place.card, place.region, monthHours) : null
    if (problem) problems[field.name] = problem
  }
  return problems
}

/** Hours beyond what the month has are most often all of them. */
function mendOf(kind: ComponentKind, inputs: Inputs, problems: Record<string, string>, monthHours: number): Refusal | null {
  const field = kind.fields.find(f => f.type === 'hours' && problems[f.name] !== undefined)
  return field && Number(inputs[field.name]) > monthHours
    ? { field: field.name, reason: problems[field.name]!, instead: { value: 'always on', label: 'make it always on' } }
    : null
}

function chargesOf(
  component: Component,
  kind: ComponentKind,
  inputs: Inputs,
  place: Place,
  settings: Settings,
  rest: Working,
  isWished: boolean,
): NonNullable<Plan['priced']> {
  const { estimate, prices, monthHours, currency } = settings
  if (place.card.currency !== currency) mustFindRate(estimate, prices.rates, place.card.currency, currency)
  const uplifts = upliftsOfRow(prices.uplifts, kind, inputs, component.pattern, estimate)
  for (const set of uplifts)
    if (set.currency !== currency) mustFindRate(estimate, prices.rates, set.currency, currency, `, which the uplifts «${set.name}» are in`)
  const charges = kind.price(makeBuilder(component.id, kind, inputs, place, { monthHours }, rest))
  const offered = waysOf(charges, monthHours)
  const planned = (made: Way): PlannedWay => ({ ...made, ...drawnBy(component.id, place.card.provider, made, charges) })
  const commits = inputs.commitTo ?? null
  const at = (pays: string | undefined) =>
    pays === undefined ? 0 : offered.findIndex(way => way.way === pays && (way.commits === null || way.commits === commits))
  const wished = at(inputs.pays)
  const taken = wished < 0 && isWished ? Math.max(0, at(component.inputs.pays)) : wished
  if (taken < 0)
    throw new NotPriced({
      field: 'pays',
      reason: `«${inputs.pays}» is not offered for this`,
      instead: { value: 'on-demand', label: 'pay on-demand' },
    })
  const all = [
    ...(charges.running ?? []),
    ...splitRecurring(charges.recurring).charges,
    ...(charges.months?.flatMap(month => splitRecurring(month).charges) ?? []),
  ]
  const keys = [
    ...new Set(all.filter(charge => isPooled(charge.line)).map(charge => lineKey({ provider: place.card.provider, line: charge.line }))),
  ]
  const chosen = planned(offered[taken]!.make())
  let ways: PlannedWay[] | null = null
  return {
    charges,
    uplifts,
    chosen,
    ways: () => (ways ??= offered.map((way, i) => (i === taken ? chosen : planned(way.make())))),
    horizon: charges.months?.length ?? 0,
    keys,
  }
}

/** What a way draws: each charge of every month, and where months differ each line's quantities month by month. */
function drawnBy(row: string, provider: string, way: Way, { months = [] }: Charges): { drawn: Drawn[]; amounts: Working[] } {
  const { charges, amounts } = splitRecurring(way.recurring)
  const drawn = charges.map((charge, at): Drawn => ({ id: `${row}#${at}`, provider, ...charge }))
  const monthly = new Map<string, { drawn: Omit<Drawn, 'quantity'>; quantities: Working[] }>()
  months.forEach((month, at) => {
    const seen = new Map<string, number>()
    for (const charge of splitRecurring(month).charges) {
      const times = seen.get(charge.line.sku) ?? 0
      seen.set(charge.line.sku, times + 1)
      const id = `${row}#${charge.line.sku}#${times}`
      const known =
        monthly.get(id) ??
        monthly
          .set(id, {
            drawn: { id, label: charge.label, provider, line: charge.line },
            quantities: Array.from({ length: months.length }, () => none),
          })
          .get(id)!
      known.quantities[at] = charge.quantity
    }
  })
  return {
    drawn: [...drawn, ...[...monthly.values()].map(({ drawn: of, quantities }): Drawn => ({ ...of, quantity: quantities }))],
    amounts,
  }
}
