import { Decimal, decimalText, zero, type DecimalText } from '../money/decimal'

/** An opportunity as a list shows it. `saved` is in the list's currency; null where it is counted by another or has no rate. */
export type Listed = {
  id: string
  detectorLabel: string
  owner: string | null
  centre: string | null
  subAccountName: string
  service: string
  risk: string
  confidence: string
  state: string
  saved: DecimalText | null
  minutesOfWork: number
}

/** What a list is grouped by; `each` for every one by itself. */
export const groupings = ['detectorLabel', 'owner', 'centre', 'subAccountName', 'service', 'risk', 'confidence', 'each'] as const
export type GroupedBy = (typeof groupings)[number]
/** The order of groups and of what is in them. */
export const orders = ['per hour', 'saving', 'work'] as const
export type ListOrder = (typeof orders)[number]

export type SavingsGroup<L extends Listed> = {
  key: string
  /** What they have in common; null where that is nothing, such as no owner. */
  label: string | null
  rows: L[]
  saved: DecimalText
  minutes: number
}

/** Groups what can be saved, in an order; what is counted by another stands in its group and adds nothing, neither money nor work. */
export function groupSavings<L extends Listed>(list: readonly L[], by: GroupedBy, order: ListOrder): SavingsGroup<L>[] {
  const groups = new Map<string, SavingsGroup<L>>()
  for (const one of list) {
    const label = by === 'each' ? one.id : one[by]
    const key = JSON.stringify(label)
    const group = groups.get(key) ?? { key, label, rows: [], saved: '0', minutes: 0 }
    groups.set(key, group)
    group.rows.push(one)
    if (one.saved === null) continue
    group.saved = decimalText(new Decimal(group.saved).plus(one.saved))
    group.minutes += one.minutesOfWork
  }
  const inOrder = compare(order)
  const rowFacts = (one: L) => ({
    saved: new Decimal(one.saved ?? 0),
    minutes: one.saved === null ? Infinity : one.minutesOfWork,
    key: one.id,
  })
  const made = [...groups.values()].map(group => ({
    ...group,
    rows: group.rows
      .map(one => ({ one, ...rowFacts(one) }))
      .sort(inOrder)
      .map(({ one }) => one),
  }))
  return made
    .map(group => ({ group, saved: new Decimal(group.saved), minutes: group.minutes, key: group.key }))
    .sort(inOrder)
    .map(({ group }) => group)
}

type Comparable = { saved: Decimal; minutes: number; key: string }
/** Larger first, or less work first; what saves nothing last; of equals the first by name. */
function compare(order: ListOrder) {
  return (a: Comparable, b: Comparable): number => {
    if (a.saved.eq(0) !== b.saved.eq(0)) return a.saved.eq(0) ? 1 : -1
    const bySaving = b.saved.cmp(a.saved)
    const byWork = a.minutes - b.minutes
    const perHour = a.saved.eq(0) ? 0 : b.saved.times(a.minutes).cmp(a.saved.times(b.minutes))
    const first = order === 'saving' ? bySaving : order === 'work' ? byWork : perHour
    return first || bySaving || (a.key < b.key ? -1 : a.key > b.key ? 1 : 0)
  }
}

/** What a list saves in all. */
export const savedOf = (list: readonly Pick<Listed, 'saved'>[]): DecimalText =>
  decimalText(list.reduce((sum, { saved }) => sum.plus(saved ?? 0), zero))
