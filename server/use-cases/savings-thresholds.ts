import { thresholdDetectors, detectors } from '../../core/opportunity/detectors'
import { metrics } from '../../core/measured/metrics'
import { FEWEST_MEASURED_HOURS, type MeasuredDetector, type ThresholdDetector } from '../../core/opportunity/detector'
import type { Coverage } from '../../core/opportunity/measured/coverage'
import { thresholdProblem, type SetThreshold } from '../../core/opportunity/thresholds'
import type { FinderView, ThresholdsPreview, ThresholdsSet } from '../../shared/contracts/savings'
import { connectors } from '../connectors/connect'
import type { Db } from '../db/database'
import { Problem } from '../problems/problem'
import { listThresholds } from '../stores/decisions'
import { canMeet } from './detector-facts'
import { foundOnBill, type FoundSaving, type SavingsWork } from './savings-found'
import { wholeOf } from './whole-saving'

/** What thresholds are set to; of sub accounts only for whoever sees the whole company. */
const thresholdsFor = async (db: Db, { bound }: SavingsWork['asker']) =>
  (await listThresholds(db)).filter(({ subAccount }) => !bound || subAccount === '')

/** The ways to find savings, with what each lacks and goes by. */
export async function finders(work: SavingsWork, found: readonly FoundSaving[]): Promise<FinderView[]> {
  const { database, seen, asker } = work
  const [all, set, { result: facts }, { coverage }] = await Promise.all([
    connectors(database.db),
    thresholdsFor(database.db, asker),
    seen.ask('facts', undefined),
    listThresholds(database.db).then(thresholds => foundOnBill(work, thresholds)),
  ])
  return detectors.map(one => {
    const { detector, label, from } = one
    const own = found.filter(({ body, state }) => body.detector === detector && state !== 'gone').length
    if (one.from !== 'connection') {
      const covered = one.from === 'measured' ? (coverage.find(other => other.detector === detector) ?? null) : null
      const lacking = one.from === 'measured' ? lackingMeasurements(one, covered) : null
      return {
        ...{ detector, label, from, found: own, goesBy: one.goesBy ?? null, thresholds: thresholdsOf(one, set) },
        coverage: covered && { measured: covered.measured, unmeasured: covered.unmeasured, dearest: covered.dearest },
        lacks: facts.charges ? lacking : 'There are no charges yet: drop a bill under Sources.',
      }
    }
    const { inventory, measurements = [], events } = one.needs
    const wanted = [
      `an inventory of ${inventory}s`,
      ...measurements.map(({ metric }) => `hourly «${metric}»`),
      ...(events ? ['events'] : []),
    ]
    const isMet = all.some(connector => canMeet(connector, one.needs))
    return {
      ...{ detector, label, from, found: own, goesBy: one.goesBy, thresholds: [], coverage: null },
      lacks: isMet ? null : `It needs ${wanted.join(' and ')}: connect a cloud that has them under Sources.`,
    }
  })
}

/** What a detector would have to be told before it can look at anything; null where it looks at something. */
function lackingMeasurements({ looksAt, metrics: needs }: MeasuredDetector, covered: Coverage | null): string | null {
  if (covered?.measured) return null
  if (!covered?.unmeasured) return `No ${looksAt} that it could look at are on the bill.`
  const wanted = needs.map(metric => `«${metric}» (${metrics[metric].what}, ${metrics[metric].unit})`).join(' and ')
  return `No ${looksAt} are measured: it needs ${wanted} by the hour for ${FEWEST_MEASURED_HOURS / 24} days. Connect a cloud that has them under Sources, or drop a file of measurements here.`
}

function thresholdsOf({ detector, thresholds }: ThresholdDetector, set: readonly SetThreshold[]): FinderView['thresholds'] {
  return thresholds.map(({ options, ...threshold }) => {
    const own = set.filter(one => one.detector === detector && one.key === threshold.key)
    return {
      ...threshold,
      ...(options && { options: [...options] }),
      value: own.find(({ subAccount }) => subAccount === '')?.value ?? threshold.usual,
      bySubAccount: Object.fromEntries(own.flatMap(({ subAccount, value }) => (subAccount === '' ? [] : [[subAccount, value]]))),
    }
  })
}

/** @throws Problem naming every threshold that cannot be set so. */
export function mustBeThresholds({ thresholds }: ThresholdsSet): void {
  const errors = thresholds.flatMap((one, at) => {
    const reason = thresholdProblem(one, thresholdDetectors)
    return reason === null ? [] : [{ field: `thresholds.${at}.value`, reason }]
  })
  if (errors.length)
    throw new Problem(
      'invalid',
      'wrong-thresholds',
      'Not every threshold can be set so',
      errors.map(({ reason }) => reason).join('; '),
      errors,
    )
}

/** What would be found on the bill with other thresholds, beside what is found with those that are set. */
export async function previewThresholds(work: SavingsWork, asked: ThresholdsSet): Promise<ThresholdsPreview> {
  mustBeThresholds(asked)
  const { database } = work
  const { found: then } = await foundOnBill(work, asked.thresholds)
  const { found: now } = await foundOnBill(work, await listThresholds(database.db))
  const [wholeNow, wholeThen] = await Promise.all([wholeOf(work, now), wholeOf(work, then)])
  const [idsNow, idsThen] = [new Set(now.map(({ id }) => id)), new Set(then.map(({ id }) => id))]
  const count = (list: typeof now, id: string) => list.filter(({ detector }) => detector === id).length
  return {
    found: thresholdDetectors.map(({ detector, label }) => ({ detector, label, now: count(now, detector), then: count(then, detector) })),
    ...{ now: wholeNow.total, then: wholeThen.total, currency: wholeNow.currency ?? wholeThen.currency },
    comes: then.filter(({ id }) => !idsNow.has(id)).map(({ title }) => title),
    goes: now.filter(({ id }) => !idsThen.has(id)).map(({ title }) => title),
  }
}
