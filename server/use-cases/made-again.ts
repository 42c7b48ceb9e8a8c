import { Decimal, sum } from '../../core/money/decimal'
import { scaledText } from '../../core/money/scaled'
import { AGAIN_WITHIN_DAYS, madeAgain, type Gone, type Newcomer } from '../../core/opportunity/made-again'
import { addDays } from '../../core/time/day'
import type { ChargesSeen } from '../charges/charges-seen'
import type { Done } from './deed-charges'

const EVER = { start: '1970-01-01', end: '2200-01-01', leaveOut: { ResourceId: [null] } }

/** By opportunity, what may have come in the place of what is gone by it, as far as whoever asks may see that. */
export async function newInPlace(charges: ChargesSeen, done: readonly Done[]): Promise<Map<string, Newcomer[]>> {
  const gone = done.flatMap(deed => goneBy(deed) ?? [])
  if (!gone.length) return new Map()
  return madeAgain(gone, await newcomers(charges, gone))
}

/** What is gone by a deed that still stands; null where it only costs less. */
function goneBy({ until, doneAt, currency, body }: Done): Gone | null {
  const skus = body.effects.filter(({ how }) => how === 'gone').map(({ sku }) => sku)
  if (until || !skus.length) return null
  const { resourceName: name, provider, subAccountName: subAccount } = body
  return { id: body.id, name, provider, subAccount, currency, skus, day: doneAt.slice(0, 10) }
}

/** Resources charged for the first time since the first was gone, under a name or a SKU of one that is gone. */
async function newcomers(charges: ChargesSeen, gone: readonly Gone[]): Promise<Newcomer[]> {
  const first = gone.map(({ day }) => day).reduce((a, b) => (a < b ? a : b))
  const last = gone.map(({ day }) => day).reduce((a, b) => (a > b ? a : b))
  const likes: Record<string, string[]>[] = [
    { SkuId: [...new Set(gone.flatMap(({ skus }) => skus))] },
    { ResourceName: [...new Set(gone.map(({ name }) => name))] },
  ]
  const idsOf = async (days: { start: string; end: string }): Promise<Set<string>> => {
    const all = await Promise.all(
      likes.map(async keep => {
        const asked = { ...EVER, ...days, keep, splitBy: ['ResourceId' as const], grain: null, measures: ['effectiveCost' as const] }
        return (await charges.ask('group', asked)).result.map(({ values }) => values.ResourceId!)
      }),
    )
    return new Set(all.flat())
  }
  const [before, since] = await Promise.all([idsOf({ start: EVER.start, end: first }), idsOf({ start: first, end: EVER.end })])
  const ids = [...since].filter(id => !before.has(id))
  if (!ids.length) return []
  const { result } = await charges.ask('group', {
    ...{ ...EVER, keep: { ResourceId: ids, ChargeCategory: ['Usage'], ChargeClass: [null] }, grain: 'day' },
    splitBy: ['ResourceId', 'ResourceName', 'ProviderName', 'SubAccountName', 'SkuId'],
    measures: ['effectiveCost'],
  })
  const byResource = new Map<string, typeof result>()
  for (const group of result) {
    const key = `${group.values.ResourceId}\n${group.currency}`
    byResource.set(key, [...(byResource.get(key) ?? []), group])
  }
  return [...byResource.values()].flatMap(groups => {
    const days = groups.map(({ start }) => start!).sort()
    const newest = groups.find(({ start }) => start === days.at(-1))!
    if (days[0]! < first || days[0]! > addDays(last, AGAIN_WITHIN_DAYS)) return []
    const { ResourceId, ResourceName, ProviderName, SubAccountName } = newest.values
    return [
      {
        ...{ resourceId: ResourceId!, name: ResourceName ?? ResourceId!, provider: ProviderName ?? '', subAccount: SubAccountName ?? '' },
        ...{ skus: [...new Set(groups.flatMap(({ values }) => values.SkuId ?? []))], since: days[0]!, currency: newest.currency },
        amount: sum(groups.map(({ amounts }) => new Decimal(scaledText(amounts[0]!)))),
      },
    ]
  })
}
