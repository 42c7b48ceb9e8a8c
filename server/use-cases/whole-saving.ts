import { rateFinder } from '../../core/money/rates'
import { confidences, type Opportunity } from '../../core/opportunity/opportunity'
import { wholeSaving, type WholeSaving } from '../../core/opportunity/whole-saving'
import { listRates } from '../stores/rates'
import type { SavingsWork } from './savings-found'

/** What opportunities come to, each amount once, in the company's report currency at the rate of the last day that each was looked at. */
export async function wholeOf(
  { database, seen }: Pick<SavingsWork, 'database' | 'seen'>,
  open: readonly Opportunity[],
): Promise<WholeSaving> {
  const [rates, { result: facts }] = await Promise.all([listRates(database.db), seen.ask('facts', undefined)])
  const find = rateFinder(rates)
  // of what saves alike what was measured is counted
  const bySureness = [...open].sort((a, b) => confidences.indexOf(a.confidence) - confidences.indexOf(b.confidence))
  const planned = bySureness.map(({ id, currency, effects, evidence }) => ({ id, currency, effects, day: evidence.to }))
  return wholeSaving(planned, facts.reportCurrency, (from, to, day) => find(from, to, day)?.rate ?? null)
}
