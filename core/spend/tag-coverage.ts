import { scaledText, type Scaled } from '../money/scaled'
import { dayFromNumber, type Day } from '../time/day'
import { plainGroups } from './plain-groups'
import type { Cube } from './cube'
import { columnPlace } from './dimension'
import { keysOfLayer } from './layers'
import type { Scope } from './question'
import { hourOf } from './segment'

/** By source and sub account (the empty name where a charge has none) the number of the first day with a tag of the charge's own. */
type FirstDays = Map<string, Map<string, number>>

function firstDaysOf(cube: Cube, dimension: string): FirstDays {
  const found: FirstDays = new Map()
  const layer = cube.coding(dimension).layers[0]
  if (!layer) return found
  const idPlace = columnPlace('subAccount', 'SubAccountId')
  for (const { source, billingPeriodStart, segments } of cube.periods.values()) {
    const own = found.get(source) ?? new Map<string, number>()
    found.set(source, own)
    for (const segment of segments) {
      const { rows, time, keys } = segment
      const tag = keysOfLayer(layer, { segment, billingMonth: billingPeriodStart.slice(0, 7), source })
      const has = Uint8Array.from(tag.ids, id => (layer.codes[id] === 0 ? 0 : 1))
      if (!has.includes(1)) continue
      const days = time.starts.map(start => Math.floor(hourOf(start) / 24))
      const accounts = keys.subAccount
      const first = new Float64Array(accounts.ids.length).fill(Infinity)
      for (let row = 0; row < rows; row++) {
        if (has[tag.codes[row]!] === 0) continue
        const account = accounts.codes[row]!
        if (days[time.codes[row]!]! < first[account]!) first[account] = days[time.codes[row]!]!
      }
      first.forEach((day, account) => {
        if (day === Infinity) return
        const name = cube.entries.subAccount[accounts.ids[account]!]?.[idPlace] ?? ''
        own.set(name, Math.min(own.get(name) ?? Infinity, day))
      })
    }
  }
  return found
}

/** Only the charges of one source. */
const ofSource = (cube: Cube, scope: Scope, source: string): Scope => ({
  ...scope,
  ends: Object.fromEntries(
    [...new Set([...cube.periods.values()].map(period => period.source))].map(other => [
      other,
      other === source ? (scope.ends && Object.hasOwn(scope.ends, other) ? scope.ends[other]! : scope.end) : scope.start,
    ]),
  ),
})

const sourcesOf = (cube: Cube) => [...new Set([...cube.periods.values()].map(({ source }) => source))].sort()

/**
 * From which day on a sub account of a source reports a tag: since it first had it; where it never had, since its source first had it
 * anywhere, from when on it could; null where the source has it nowhere.
 */
function reportedFrom(own: Map<string, number> | undefined, account: string): number | null {
  if (!own?.size) return null
  return own.get(account) ?? Math.min(...own.values())
}

/** A day's cost that has a tag, that lacks it, and of which it was not yet reported. */
export type TagDay = { start: Day; currency: string; tagged: string; missing: string; early: string }

/** The cost of a scope by day: what has a tag, own or inherited, what lacks it, and of which its sub account had not yet reported it. */
export function tagCoverage(cube: Cube, scope: Scope, dimension: string): TagDay[] {
  const firstDays = firstDaysOf(cube, dimension)
  const sums = new Map<string, { start: Day; currency: string; tagged: Scaled; missing: Scaled; early: Scaled }>()
  for (const source of sourcesOf(cube)) {
    const grouping = {
      ...ofSource(cube, scope, source),
      splitBy: [dimension, 'SubAccountId'],
      grain: 'day' as const,
      measures: ['effectiveCost'] as const,
    }
    for (const { values, start, currency, amounts } of plainGroups(cube, grouping)) {
      const key = `${start} ${currency}`
      const day = sums.get(key) ?? { start: start!, currency, tagged: 0n, missing: 0n, early: 0n }
      sums.set(key, day)
      const from = reportedFrom(firstDays.get(source), values.SubAccountId ?? '')
      const into = values[dimension] !== null ? 'tagged' : from === null || start! < dayFromNumber(from) ? 'early' : 'missing'
      day[into] += amounts[0]!
    }
  }
  return [...sums.values()]
    .sort((a, b) => (a.start === b.start ? (a.currency < b.currency ? -1 : 1) : a.start < b.start ? -1 : 1))
    .map(({ tagged, missing, early, ...day }) => ({
      ...day,
      tagged: scaledText(tagged),
      missing: scaledText(missing),
      early: scaledText(early),
    }))
}

/** A source whose charges of a scope have a tag only later, or not at all: of how many of its sub accounts that holds. */
export type LateReport = { source: string; firstDay: Day | null; subAccounts: number; of: number }

/** Sources of which some charges of a scope are from before their sub account reported a tag. */
export function lateReports(cube: Cube, scope: Scope, dimension: string): LateReport[] {
  const firstDays = firstDaysOf(cube, dimension)
  return sourcesOf(cube).flatMap((source): LateReport[] => {
    const grouping = { ...ofSource(cube, scope, source), splitBy: ['SubAccountId'], grain: 'day' as const, measures: [] }
    const begins = new Map<string, Day>()
    for (const { values, start } of plainGroups(cube, grouping)) {
      const account = values.SubAccountId ?? ''
      if (!begins.has(account) || start! < begins.get(account)!) begins.set(account, start!)
    }
    const late = [...begins].flatMap(([account, begin]) => {
      const from = reportedFrom(firstDays.get(source), account)
      return from === null || dayFromNumber(from) > begin ? [from] : []
    })
    if (!late.length) return []
    const days = late.filter(day => day !== null)
    return [{ source, firstDay: days.length ? dayFromNumber(Math.min(...days)) : null, subAccounts: late.length, of: begins.size }]
  })
}
