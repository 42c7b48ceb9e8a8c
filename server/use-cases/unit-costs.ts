import { dataDaysOf, laggards } from '../../core/spend/sentence-period'
import type { CubeFacts } from '../charges/cube/cube-facts'
import { inCurrency } from '../../core/unit-cost/in-currency'
import { costBehaviour } from '../../core/unit-cost/cost-behaviour'
import { unitCostOf, unitCosts } from '../../core/unit-cost/unit-cost'
import { treeOf, type CostCentre } from '../../core/allocation/plan'
import { centresWithin } from '../../core/allocation/tree'
import { addDays, addMonths, monthEnd, monthStart } from '../../core/time/day'
import type { Rate } from '../../core/money/rates'
import type { AllocationQuestion, Settlement, StatementsBeside } from '../../shared/contracts/allocation'
import type { MeasureState, UnitCosts, UnitCostsAsked } from '../../shared/contracts/measures'
import { JsonBytes } from '../json-bytes'
import { notFound } from '../problems/problem'
import { listRates } from '../stores/rates'
import { listMeasures } from '../stores/measures'
import { measuredCentres, measureSeen } from './measures-seen'
import { planFor } from './closed-months'
import { settledMonth } from './settled-month'
import type { Work } from './work'

/** The statements of a settled month. */
type Statements = Pick<Settlement, 'statements'>['statements']

/** What a measured cost centre and all below it cost in a month, in one currency at the rates of its last day. */
const costOf = (
  { id, month, statements }: { id: string; month: string; statements: Statements },
  { centres, currency, of, rates }: { centres: readonly CostCentre[]; currency: string; of: 'direct' | 'full'; rates: readonly Rate[] },
) => {
  const within = centresWithin(centres, { centres: [id] })
  const amounts = statements
    .filter(({ centre }) => within.has(centre))
    .map(one => ({ currency: one.currency, amount: of === 'direct' ? one.direct : one.total }))
  return inCurrency(amounts, currency, rates, addDays(monthEnd(month), -1))
}

/** Months settled, closed ones as they are known today. */
async function settledMonths(work: Work, months: readonly string[], asked: Omit<AllocationQuestion, 'month'>) {
  const settled: { month: string; statements: Statements }[] = []
  for (const month of months) {
    const { reply } = await settledMonth(work, { ...asked, month, uplifts: 'none' })
    settled.push({ month, statements: (reply instanceof JsonBytes ? reply.read() : reply).statements })
  }
  return settled
}

/** What one of a measure costs on each cost centre that has some, over settled months. */
async function productsOf(
  work: Work,
  measure: MeasureState,
  settled: readonly { month: string; statements: Statements }[],
  of: 'direct' | 'full',
): Promise<Pick<UnitCosts, 'currency' | 'late' | 'products'>> {
  const { database, seen } = work
  const [{ result: facts }, rates, { plan }] = await Promise.all([
    seen.ask('facts', undefined),
    listRates(database.db),
    planFor(database.db, null),
  ])
  const centres = treeOf(plan, measure.tree)?.centres
  if (!centres) throw notFound('tree', `«${measure.name}» is of the tree «${measure.tree}», which the cost centres do not have any more.`)
  const currency = facts.reportCurrency ?? settled.flatMap(({ statements }) => statements)[0]?.currency ?? 'EUR'
  const late = settled.flatMap(({ month }) => lateIn(month, facts))
  const unequal = new Set(late.map(({ month }) => month))
  const ids = new Set(measure.values.map(({ centre }) => centre))
  const products = centres
    .filter(({ id }) => ids.has(id))
    .map(({ id, name }) => {
      const costs = settled.map(({ month, statements }) => ({
        month,
        ...costOf({ id, month, statements }, { centres, currency, of, rates }),
      }))
      const values = new Map(measure.values.filter(({ centre }) => centre === id).map(({ date, value }) => [date, value]))
      const known = new Map(costs.map(({ month, amount }) => [month, amount]))
      const rows = unitCosts([...known.keys()], known, { grain: measure.grain, values }, facts.lastDay ?? '1970-01-01', unequal)
      const whole = rows.filter(({ unitCost, to }) => unitCost !== null && to === null)
      return {
        ...{ centre: id, name, whole: unitCostOf(rows) },
        months: rows.map((row, at) => ({ ...row, noRate: costs[at]!.noRate })),
        behaviour: costBehaviour(whole.map(({ quantity, cost }) => ({ quantity: Number(quantity), cost: Number(cost) }))),
      }
    })
  return { currency, late, products }
}

/** Sources that deliver, and have not delivered a month as far as others; one that ended before it is no part of it. */
function lateIn(month: string, facts: Pick<CubeFacts, 'firstDay' | 'lastDay' | 'sources'>): UnitCosts['late'] {
  const days = dataDaysOf(facts)
  if (!days) return []
  return laggards({ start: monthStart(month), end: monthEnd(month) }, days).flatMap(({ source, lastDay }) =>
    lastDay >= addDays(monthStart(month), -1) ? [{ month, source, lastDay }] : [],
  )
}

/** What one of a business measure costs on each cost centre that has some, by month; closed months as they are known today. */
export async function unitCostsAsked(work: Work, { measure: name, cost, of, until, months: count }: UnitCostsAsked): Promise<UnitCosts> {
  const measure = await measureSeen(work, name)
  const months = await monthsWithCharges(
    work,
    Array.from({ length: count }, (_, at) => addMonths(until, at + 1 - count)),
  )
  const tree = measure.tree === null ? {} : { tree: measure.tree }
  const settled = await settledMonths(work, months, { measure: cost, ...tree, as: 'today' })
  return { name, unit: measure.unit, grain: measure.grain, ...(await productsOf(work, measure, settled, of)) }
}

/** Of months those that charges reach into. */
async function monthsWithCharges({ seen }: Work, months: readonly string[]): Promise<string[]> {
  const { result } = await seen.ask('facts', undefined)
  const { firstDay, lastDay } = result
  return months.filter(month => firstDay !== null && lastDay !== null && monthEnd(month) > firstDay && monthStart(month) <= lastDay)
}

/** What stands beside the statements of a month: what each was in the month before, and what one of its business measures costs. */
export async function statementsBeside(
  work: Work,
  { month, measure, ...asked }: Omit<AllocationQuestion, 'as' | 'uplifts'>,
): Promise<StatementsBeside> {
  const { db } = work.database
  const months = await monthsWithCharges(work, [addMonths(month, -1), month])
  const tree = asked.tree ?? null
  const settled = await settledMonths(work, months, { measure, ...asked })
  const before = settled.find(one => one.month !== month)
  const unitCosts: StatementsBeside['unitCosts'] = []
  const listed = await listMeasures(db, await measuredCentres(work))
  for (const { name } of listed.filter(one => one.tree === tree)) {
    const counted = await measureSeen(work, name)
    const { currency, products } = await productsOf(work, counted, settled, 'full')
    for (const { centre, months: rows } of products) {
      const now = rows.find(row => row.month === month)
      const then = rows.find(row => row.month !== month)
      if (now) unitCosts.push({ ...now, centre, measure: name, unit: counted.unit, currency, before: then?.unitCost ?? null })
    }
  }
  const totals = before?.statements.map(({ centre, currency, total }) => ({ centre, currency, total })) ?? null
  const { result: facts } = await work.seen.ask('facts', undefined)
  const reached = [facts.lastDay ?? monthEnd(month), ...lateIn(month, facts).map(({ lastDay }) => lastDay)].sort()[0]!
  return {
    to: reached < addDays(monthEnd(month), -1) ? reached : null,
    before: before && totals ? { month: before.month, totals } : null,
    unitCosts,
  }
}
