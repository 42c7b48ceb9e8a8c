import { ownersOfCharged, whose, type Owner, type ResourceFacts } from '../../../core/allocation/whose'
import { chargedMeeting, namedMeeting, type MeetingAsked } from '../../../core/standing-order/resources-meeting'
import { scaledText } from '../../../core/money/scaled'
import type { SkuMeaning } from '../../../core/ratecard/sku-meanings'
import { plainGroups, type Group } from '../../../core/spend/plain-groups'
import type { Converted, PackedConverted } from '../../../core/spend/convert'
import { centreDimension } from '../../../core/spend/dimension'
import { rowCodes } from '../../../core/spend/layers'
import { compare, type CompareQuestion, type Comparison } from '../../../core/spend/compare'
import { covered } from '../../../core/spend/covered'
import { periodKey, type SourcePeriod } from '../../../core/spend/cube'
import { findPlaces, type FoundPlace } from '../../../core/spend/find'
import { groupCharges } from '../../../core/spend/group'
import type { PackedAnswer } from '../../../core/spend/packed'
import type { CubePart } from '../../../core/spend/part'
import type { Answer, Grouping, Scope } from '../../../core/spend/question'
import { periodsReached, type Reached } from '../../../core/spend/reached'
import { rowsOf } from '../../../core/spend/rows'
import { segmentSums } from '../../../core/spend/segment-sums'
import { unmatchedOf, type Unmatched, type UnmatchedAsked } from '../../../core/spend/unmatched'
import type { Day } from '../../../core/time/day'
import type { ImportPeriod } from '../../../shared/contracts/imports'
import type { CubeFacts } from './cube-facts'
import { answerAsked, answersAsked, meaningsOf, type Asked } from './cube-replies'
import { isWithin, type PeriodName, type Known } from './cube-state'

/** The rows of a load's charges for a billing period that a scope leaves, by segment; null where it reaches none. */
export type LoadRows = {
  loadId: number
  billingPeriodStart: string
  billingPeriodEnd: string
  segments: (Uint32Array | null)[]
  /** Where rows are marked, the mark of each of them. */
  marks?: (Uint16Array | null)[]
}

/** What can be asked of charges: of all, or of those within a bound. */
export const calls = {
  /** What SKU codes mean; those that nobody knows are left out. */
  meanings: ({ meanings }: Known, skus: string[]): Record<string, SkuMeaning> => meaningsOf(meanings, skus),
  answer: (known: Known, question: Asked): Answer | Converted => answerAsked(known, question),
  /** Several questions of one state of the data, their rows packed. */
  answers: (known: Known, questions: Asked[]): (PackedAnswer | PackedConverted)[] => answersAsked(known, questions),
  group: ({ cube }: Known, question: Grouping): Group[] => plainGroups(cube, question),
  /** How many charges a scope leaves. */
  count: ({ cube }: Known, scope: Scope): number =>
    groupCharges(cube, { ...scope, splitBy: [], grain: null, measures: [] }).counts.reduce((a, b) => a + b, 0),
  /** Which charges of which loads a scope leaves: by segment their rows as they are kept, in order. */
  rows({ cube, part }: Known, scope: Scope): LoadRows[] {
    const rowsWithin = rowsOf(cube, scope)
    return periodsReached(cube, scope)
      .sort((a, b) => (keyOf(a.period) < keyOf(b.period) ? -1 : 1))
      .map(({ period: { loadId, billingPeriodStart, billingPeriodEnd }, segments }) => ({
        loadId: loadId!,
        billingPeriodStart,
        billingPeriodEnd,
        segments: part ? keptRows(part, segments, rowsWithin) : segments.map(reached => reached && rowsWithin(reached)),
      }))
  },
  /** All rows of a billing month, each marked with the place of the cost centre or pool that it is on among the values; null for none. */
  rowsByCentre({ whole }: Known, { scope, tree }: { scope: Scope; tree: string | null }): { values: (string | null)[]; loads: LoadRows[] } {
    const { values, layers } = whole.coding(centreDimension(tree))
    const rowsWithin = rowsOf(whole, scope)
    const loads = periodsReached(whole, scope)
      .sort((a, b) => (keyOf(a.period) < keyOf(b.period) ? -1 : 1))
      .map(({ period: { loadId, billingPeriodStart, billingPeriodEnd }, segments }): LoadRows => {
        const rows = segments.map(reached => reached && rowsWithin(reached))
        const marks = segments.map((reached, at) => {
          if (!reached) return null
          const codeOf = rowCodes(layers, reached)
          return Uint16Array.from(rows[at]!, row => codeOf(row))
        })
        return { loadId: loadId!, billingPeriodStart, billingPeriodEnd, segments: rows, marks }
      })
    return { values, loads }
  },
  /** Which resources are on no bill. */
  notBilled({ cube }: Known, { resources }: { resources: string[] }): string[] {
    const billed = new Set(cube.coding('ResourceId').values)
    return resources.filter(id => !billed.has(id))
  },
  /** What one period is against another in all, taken apart. */
  compared: ({ cube }: Known, question: CompareQuestion): Comparison['totals'] => compare(cube, question).totals,
  /** The days that charges cover, and which sources have delivered them. */
  covered: ({ cube }: Known, scope: Scope): ReturnType<typeof covered> => covered(cube, scope),
  /**
   * Whose resources are on a day, by the first tree of cost centres; by resource id, nothing where there is no plan, or where they are not
   * for who asks.
   */
  whose(known: Known, { resources, day }: { resources: ResourceFacts[]; day: Day }): Record<string, Owner> {
    const { newest } = known.plans
    if (!newest) return {}
    if (!known.bound) return Object.fromEntries(whose(known.whole, newest, resources, day))
    // of a resource that others are charged for too, what they pay has no part in it
    const ids = resources.map(({ id }) => id)
    const own = ownersOfCharged(known.cube, newest, ids, day)
    const others = resources.filter(({ id }) => !own.has(id))
    const isTheirs = isWithin(known)
    return Object.fromEntries([...own, ...whose(known.whole, newest, others, day)].filter(([, owner]) => isTheirs(owner?.target ?? null)))
  },
  /** Resources that meet conditions as they are on a day; of those named, or of all that are charged since a day. */
  meeting: ({ whole }: Known, { conditions, since, day, resources }: MeetingAsked): string[] =>
    resources ? namedMeeting(whole, conditions, resources, day) : chargedMeeting(whole, conditions, { since, day }),
  /** Places whose name or id holds a text. */
  find: ({ cube }: Known, text: string): FoundPlace[] => findPlaces(cube, text),
  /** Where charges and a lookup do not meet. */
  unmatched: ({ cube }: Known, asked: UnmatchedAsked): Unmatched => unmatchedOf(cube, asked),
  facts: ({ facts }: Known, _: undefined): CubeFacts => facts(),
  /** Sums of billing periods as they are in memory, by currency. */
  sums: ({ cube }: Known, periods: PeriodName[]): ImportPeriod[] =>
    periods.flatMap(name => {
      const period = cube.periods.get(keyOf(name))
      return period
        ? segmentSums(period.segments, cube.currencies).map(({ currency, rows, billed, effective }) => ({
            billingPeriodStart: name.billingPeriodStart,
            currency,
            rows,
            billedCost: scaledText(billed),
            effectiveCost: scaledText(effective),
          }))
        : []
    }),
}
export type CubeCalls = typeof calls

const keyOf = (name: Pick<SourcePeriod, 'source' | 'billingPeriodStart'>) => periodKey(name.source, name.billingPeriodStart)

/** Rows of a part's segments, as rows of those that they come from. */
function keptRows({ origins }: CubePart, segments: readonly (Reached | null)[], rowsWithin: (reached: Reached) => Uint32Array) {
  const found: LoadRows['segments'] = []
  for (const reached of segments) {
    if (!reached) continue
    const { place, places, rows } = origins.get(reached.segment)!
    while (found.length < places) found.push(null)
    found[place] = rowsWithin(reached).map(row => rows[row]!)
  }
  return found
}
