import { billDetectors, detectors } from '../../core/opportunity/detectors'
import type { BillDetector } from '../../core/opportunity/detector'
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
export async function finders({ database, seen, asker }: SavingsWork, found: readonly FoundSaving[]): Promise<FinderView[]> {
  const [all, set, { result: facts }] = await Promise.all([
    connectors(database.db),
    thresholdsFor(database.db, asker),
    seen.ask('facts', undefined),
  ])
  return detectors.map(one => {
    const { detector, label, from } = one
    const own = found.filter(({ body, state }) => body.detector === detector && state !== 'gone').length
    if (one.from === 'bill')
      return {
        ...{ detector, label, from, found: own, goesBy: null, thresholds: thresholdsOf(one, set) },
        lacks: facts.charges ? null : 'There are no charges yet: drop a bill under Sources.',
      }
    const { inventory, measurements = [], events } = one.needs
    const wanted = [
      `an inventory of ${inventory}s`,
      ...measurements.map(({ metric }) => `hourly «${metric}»`),
      ...(events ? ['events'] : []),
    ]
    const isMet = all.some(connector => canMeet(connector, one.needs))
    return {
      ...{ detector, label, from, found: own, goesBy: one.goesBy, thresholds: [] },
      lacks: isMet ? null : `It needs ${wanted.join(' and ')}: connect a cloud that has them under Sources.`,
    }
  })
}

function thresholdsOf({ detector, thresholds }: BillDetector, set: readonly SetThreshold[]): FinderView['thresholds'] {
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
    const reason = thresholdProblem(one, billDetectors)
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
  const then = await foundOnBill(work, asked.thresholds)
  const now = await foundOnBill(work, await listThresholds(database.db))
  const [wholeNow, wholeThen] = await Promise.all([wholeOf(work, now), wholeOf(work, then)])
  const [idsNow, idsThen] = [new Set(now.map(({ id }) => id)), new Set(then.map(({ id }) => id))]
  const count = (list: typeof now, id: string) => list.filter(({ detector }) => detector === id).length
  return {
    found: billDetectors.map(({ detector, label }) => ({ detector, label, now: count(now, detector), then: count(then, detector) })),
    ...{ now: wholeNow.total, then: wholeThen.total, currency: wholeNow.currency ?? wholeThen.currency },
    comes: then.filter(({ id }) => !idsNow.has(id)).map(({ title }) => title),
    goes: now.filter(({ id }) => !idsThen.has(id)).map(({ title }) => title),
  }
}
