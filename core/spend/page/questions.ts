import { addDays, type Day } from '../../time/day'
import { grainOfAtMost, type Grain } from '../../time/grain'
import { isWholeMonths, type Period } from '../../time/period'
import { withCompanions } from '../companions'
import { dayGroups, type DayGroup } from '../day-groups'
import { adds, isMoneyMeasure } from '../question'
import type { Sentence } from '../sentence'
import { reachingCompared, resolvePeriod, type DataDays } from '../sentence-period'
import { askedOf, type Asked } from './asked'
import { stepQuestions, type StepAsked } from './steps'

/** A source's last whole day, the later day of which a part is delivered, and the first later day on which something begins. */
export type SourceReach = { source: string; lastDay: Day; partialDay: Day | null; laterFrom: Day | null }

/** Rows that get a small line of their own in the table. */
const MOST_LINES = 60
/** Points of such a line: it is no wider than so many. */
const MOST_LINE_POINTS = 62
/** Small charts beside each other. */
export const MOST_MULTIPLES = 12
/** A day after all that can be loaded. */
const LATEST = '2101-01-01'

/** What a page of spend is made of: of each thing its question, or, once they are answered, its answer; null where it has no place. */
export type Page<T> = {
  now: T
  before: T
  /** All of it at each start, and the largest rows. */
  line: T
  series: T
  /** The course of the largest rows over coarser steps, where the period has more than a small line can show. */
  lines: T | null
  chargeKinds: T
  across: T | null
  /** What begins after the last day that is delivered. */
  later: T | null
  /** The same by the other periods, and the charges outside their billing period by either. */
  otherBasis: T | null
  elsewhere: T | null
  otherElsewhere: T | null
  /** What is delivered of the day after the period. */
  part: T | null
  partLine: T | null
  partSeries: T | null
  steps: { now: T; before: T }[]
  /** Where sources reach unequally far: one for each part of them. */
  days: T[]
}

/** A page with something else in each of its places. They are gone through in the same order whatever is in them. */
export function mapPage<A, B>(page: Page<A>, of: (a: A) => B): Page<B> {
  const maybe = (a: A | null) => (a === null ? null : of(a))
  return {
    now: of(page.now),
    before: of(page.before),
    line: of(page.line),
    series: of(page.series),
    lines: maybe(page.lines),
    chargeKinds: of(page.chargeKinds),
    across: maybe(page.across),
    later: maybe(page.later),
    otherBasis: maybe(page.otherBasis),
    elsewhere: maybe(page.elsewhere),
    otherElsewhere: maybe(page.otherElsewhere),
    part: maybe(page.part),
    partLine: maybe(page.partLine),
    partSeries: maybe(page.partSeries),
    steps: page.steps.map(({ now, before }) => ({ now: of(now), before: of(before) })),
    days: page.days.map(of),
  }
}

/** What is asked for a sentence, with what the answers are read by. */
export type PageAsked = {
  questions: Page<Asked>
  steps: StepAsked[]
  /** The sentence's period. */
  period: Period
  /** The step of the small lines. */
  lineGrain: Grain
  dayGroups: DayGroup[]
  /** The day after the period, where a part of it is delivered and the period rolls on with the data. */
  part: Period | null
  laterFrom: Day | null
}

/**
 * All that is asked for a sentence.
 * @param partialDay the day after the last whole one, of which a part is delivered.
 */
export function pageQuestions(sentence: Sentence, days: DataDays, sources: readonly SourceReach[], partialDay: Day | null): PageAsked {
  const question = (more?: Partial<Asked>) => askedOf(sentence, days, more)
  const before = reachingCompared(sentence, days)
  const { splitBy, grain } = sentence
  const named = withCompanions(splitBy)
  const period = resolvePeriod(sentence.period, days)
  const lineGrain = grainOfAtMost(MOST_LINE_POINTS, period.start, period.end, grain)
  const groups = dayGroups(question(), Object.keys(days.sources))
  const part =
    typeof sentence.period === 'string' && partialDay === period.end
      ? { start: period.end, end: addDays(period.end, 1), ends: undefined }
      : null
  const laterFrom = sources.flatMap(source => source.laterFrom ?? []).sort()[0] ?? null
  const isMonths = isWholeMonths(period)
  const basis = sentence.basis === 'billing' ? undefined : ('billing' as const)
  const outside = { elsewhere: true, splitBy: ['ChargeDescription', 'ChargeCategory'] }
  const charted = sentence.chart === 'multiples' ? MOST_MULTIPLES : sentence.largest + 1
  const steps = stepQuestions(sentence, question, before)
  const acrossSplit = sentence.across === null || sentence.across === 'start' ? named : [...new Set([...named, sentence.across])]
  return {
    ...{ steps, period, lineGrain, dayGroups: groups, part, laterFrom },
    questions: {
      now: question({ splitBy: named }),
      before: question({ splitBy: named, ...before }),
      line: question({ grain }),
      series: question({ splitBy, grain, limit: lineGrain === grain ? Math.max(charted, MOST_LINES) : charted }),
      lines: splitBy.length && !sentence.across && lineGrain !== grain ? question({ splitBy, grain: lineGrain, limit: MOST_LINES }) : null,
      chargeKinds: question({
        splitBy: ['ChargeCategory'],
        measure: isMoneyMeasure(sentence.measure) ? sentence.measure : 'effectiveCost',
      }),
      across: sentence.across ? question({ splitBy: acrossSplit, grain: sentence.across === 'start' ? grain : null }) : null,
      later: laterFrom ? question(laterScope(days, sources)) : null,
      otherBasis: isMonths ? question({ basis }) : null,
      elsewhere: isMonths ? question(outside) : null,
      otherElsewhere: isMonths ? question({ basis, ...outside }) : null,
      part: part && question(part),
      partLine: part && question({ ...part, grain }),
      partSeries: part && splitBy.length ? question({ ...part, splitBy, grain }) : null,
      steps: steps.map(({ now, before }) => ({ now, before })),
      days: groups.length > 1 && adds(sentence.measure) ? groups.map(({ scope: { ends } }) => question({ splitBy: named, ends })) : [],
    },
  }
}

/** What begins after all that a source has delivered, the part of a day included. */
const laterScope = (days: DataDays, sources: readonly SourceReach[]): Partial<Asked> => ({
  start: Object.values(days.sources).sort()[0]!,
  end: LATEST,
  ends: undefined,
  begins: Object.fromEntries(sources.map(({ source, lastDay, partialDay }) => [source, addDays(partialDay ?? lastDay, 1)])),
})
