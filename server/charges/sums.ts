import { scaled, scaledText } from '../../core/money/scaled'
import type { ImportChange, ImportPeriod } from '../../shared/contracts/imports'

/** Adds sums of several files up per billing period and currency. */
export function mergeSums(lists: ImportPeriod[][]): ImportPeriod[] {
  const merged = new Map<string, ImportPeriod>()
  for (const period of lists.flat()) {
    const key = `${period.billingPeriodStart} ${period.currency}`
    const known = merged.get(key)
    merged.set(
      key,
      known
        ? {
            ...known,
            rows: known.rows + period.rows,
            billedCost: scaledText(scaled(known.billedCost) + scaled(period.billedCost)),
            effectiveCost: scaledText(scaled(known.effectiveCost) + scaled(period.effectiveCost)),
          }
        : period,
    )
  }
  return [...merged].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, period]) => period)
}

/** What replacing `before` by `after` changes in billed money. A currency that is no longer there counts as zero afterwards. */
export function changesBetween(before: ImportPeriod[], after: ImportPeriod[]): ImportChange[] {
  const key = (period: ImportPeriod) => `${period.billingPeriodStart} ${period.currency}`
  const old = new Map(before.map(period => [key(period), period]))
  const now = new Map(after.map(period => [key(period), period]))
  return [...new Set([...old.keys(), ...now.keys()])].sort().map(id => {
    const { billingPeriodStart, currency } = (now.get(id) ?? old.get(id))!
    const amount = now.get(id)?.billedCost ?? '0'
    const previous = old.get(id)?.billedCost
    return {
      billingPeriodStart,
      currency,
      before: previous ?? null,
      after: amount,
      difference: scaledText(scaled(amount) - scaled(previous ?? '0')),
    }
  })
}
