import { scaledText } from '../../money/scaled'
import type { Cube } from '../../spend/cube'
import { groupInSlices } from '../../spend/group'
import type { Slices } from '../../spend/slices'
import { addDays, daysBetween, monthEnd, monthOf, monthStart, type Day } from '../../time/day'
import { daysOf } from '../../time/period'
import type { MeasuredOf } from '../../measured/measured-table'
import type { Settings, ThresholdDetector } from '../detector'
import { whereMeasured, type Coverage } from '../measured/coverage'
import type { EvidenceSeries, Opportunity } from '../opportunity'
import type { OtherwiseContext } from '../otherwise/offer'
import { nothingAsked, type OwnAsked, type OwnFinds } from '../own/own-finds'
import type { Bill } from './bill'
import type { BilledResource } from './billed-resource'
import type { BillFinding, SeriesAsked } from './finding'
import { readBill, type SkuFacts } from './read-bill'
import { lookBacks } from './stretches'

/** By detector what its thresholds are set to where a resource is. */
export type SettingsOf = (detector: ThresholdDetector, resource: BilledResource) => Settings

/** What can be saved, each with its evidence day by day, and how far those that need measurements could look. */
export type LookedThrough = { found: Opportunity[]; coverage: Coverage[] }

/**
 * Looks through the charges with some detectors, and through what was measured of what is charged for.
 * @param own what people look for beside, and the rates that other providers' prices are converted at.
 */
export function* lookThroughBill(
  cube: Cube,
  facts: SkuFacts,
  detectors: readonly ThresholdDetector[],
  settingsOf: SettingsOf,
  measuredOf: MeasuredOf = () => null,
  own: { asked: OwnAsked; rate: OtherwiseContext['rate'] } = { asked: nothingAsked, rate: () => null },
): Slices<LookedThrough> {
  const resources = yield* readBill(cube, facts)
  const rules: OwnFinds['rules'][number][] = []
  for (const rule of own.asked.rules) rules.push({ rule, within: yield* readBill(cube, facts, rule.scope) })
  const bill: Bill = { resources, own: { chosen: own.asked.chosen, rules, context: { cards: facts.cards, rate: own.rate } } }
  const findings: BillFinding[] = []
  const coverage: Coverage[] = []
  for (const detector of detectors) {
    const covered = detector.from === 'measured' ? whereMeasured(detector, bill, measuredOf) : null
    const findIn = detector.from === 'measured' ? covered!.findIn : detector.lookThrough(bill)
    let sinceOthers = 0
    for (const resource of bill.resources) {
      if (resource.window.days < FEWEST_DAYS) continue
      for (const finding of findIn(resource, settingsOf(detector, resource))) findings.push(finding)
      if (++sinceOthers < RESOURCES_AT_ONCE) continue
      sinceOthers = 0
      yield
    }
    if (covered) coverage.push(covered.coverage())
  }
  findings.sort((a, b) => Number(b.monthlySaving) - Number(a.monthlySaving))
  const units = yield* dailyUnits(cube, findings.slice(0, MOST_DRAWN))
  const found: Opportunity[] = []
  for (const [i, { series, measured, window, ...finding }] of findings.entries()) {
    const from = addDays(window.end, -lookBacks[0])
    const days = i < MOST_DRAWN ? daysOf({ start: from, end: window.end }) : []
    found.push({
      ...finding,
      evidence: {
        from: measured[0]?.days[0]?.day ?? from,
        to: window.end,
        series: [...measured, ...series.map(asked => seriesOf(asked, days, units))],
      },
    })
    if (i % FINDINGS_AT_ONCE === 0) yield
  }
  return { found, coverage }
}

/** A bill of fewer days proves nothing of a month. */
export const FEWEST_DAYS = 14
/** So many are gone through before others have their turn. */
const RESOURCES_AT_ONCE = 200
const FINDINGS_AT_ONCE = 100
/** Of so many of the largest the use is drawn day by day; of the others it is said in words. */
const MOST_DRAWN = 1000

type DailyUnits = ReadonlyMap<string, number>
const cellOf = (resource: string, sku: string, day: Day) => `${resource}\n${sku}\n${day}`

/** Units charged day by day, of all that findings show. */
function* dailyUnits(cube: Cube, findings: readonly BillFinding[]): Slices<DailyUnits> {
  const asked = findings.flatMap(({ series }) => series)
  if (!asked.length) return new Map()
  const ends = findings.map(({ window }) => window.end)
  const first = ends.reduce((least, end) => (end < least ? end : least))
  const last = ends.reduce((most, end) => (end > most ? end : most))
  const groups = yield* groupInSlices(cube, {
    ...{ start: addDays(first, -lookBacks[0]), end: last, grain: 'day' as const },
    keep: {
      ResourceId: [...new Set(asked.map(({ resourceId }) => resourceId))],
      SkuId: [...new Set(asked.flatMap(({ skus }) => skus))],
      ChargeCategory: ['Usage'],
      ChargeClass: [null],
    },
    leaveOut: {},
    splitBy: ['ResourceId', 'SkuId'],
    measures: ['pricingQuantity'],
  })
  const units = new Map<string, number>()
  for (let group = 0; group < groups.size; group++) {
    const [resource, sku] = [0, 1].map(split => groups.values[split]![groups.codes[split]![group]!]!) as [string, string]
    const cell = cellOf(resource, sku, groups.starts![groups.steps[group]!]!)
    units.set(cell, (units.get(cell) ?? 0) + Number(scaledText(groups.sums[0]!.total(groups.cells[group]!))))
  }
  return units
}

function seriesOf({ resourceId, skus, ...series }: SeriesAsked, days: readonly Day[], units: DailyUnits): EvidenceSeries {
  return {
    ...series,
    days: days.map(day => {
      const value = skus.reduce((sum, sku) => sum + (units.get(cellOf(resourceId, sku, day)) ?? 0), 0)
      return { day, value: series.unit === 'GB' ? value * daysOfMonth(day) : value }
    }),
  }
}

/** GB-months of a day are the GB kept on it, divided by the days of its month. */
const daysOfMonth = (day: Day) => daysBetween(monthStart(monthOf(day)), monthEnd(monthOf(day)))
