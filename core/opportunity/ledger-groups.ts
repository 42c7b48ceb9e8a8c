import { addTexts } from '../money/amount-text'
import { Decimal, type DecimalText } from '../money/decimal'
import { scaledText } from '../money/scaled'
import { differenceKinds, inMinorUnits, type DifferenceKind } from './explained'

/** A line of the ledger as far as it is added up: amounts as decimal text, null where the bill shows nothing of it yet. */
export type LedgerEntry = {
  id: string
  doneAt: string
  detectorLabel: string
  owner: string | null
  currency: string
  promisedMonthly: DecimalText
  promised: DecimalText | null
  seen: DecimalText | null
  differences: readonly { kind: DifferenceKind; amount: DecimalText }[]
  /** What may have come in its place since, and is charged. */
  again: readonly { amount: DecimalText }[]
  /** Snapshots that are kept of what was deleted, and are charged. */
  snapshots: readonly { amount: DecimalText }[]
}

/** What a ledger is grouped by; `each` for every line by itself, `month` for the month in which it was done. */
export const ledgerGroupings = ['detectorLabel', 'owner', 'month', 'each'] as const
export type LedgerGroupedBy = (typeof ledgerGroupings)[number]

export type LedgerSum = {
  currency: string
  promisedMonthly: DecimalText
  /** Of those that the bill shows something of. */
  promised: DecimalText
  seen: DecimalText
  /** From promised to seen, both rounded to the minor unit: together exactly what lies between them. */
  differences: { kind: DifferenceKind; amount: DecimalText }[]
  /** So many the bill shows nothing of yet: they are in `promisedMonthly` only. */
  unseen: number
  /** So many resources may have come in the place of what is gone, and what they were charged; null for none. Not taken from `seen`. */
  again: { resources: number; amount: DecimalText } | null
  /** So many snapshots are kept of what was deleted, and what they were charged; null for none. Not taken from `seen` either. */
  snapshots: { resources: number; amount: DecimalText } | null
}
export type LedgerGroup<L extends LedgerEntry> = LedgerSum & {
  key: string
  /** What they have in common; null where that is nothing, such as no owner. */
  label: string | null
  lines: L[]
}

/** Adds lines of one currency up. */
function sumOf(lines: readonly LedgerEntry[], currency: string): LedgerSum {
  const seenOf = lines.filter(({ seen }) => seen !== null)
  const promised = addTexts(seenOf.map(line => line.promised ?? '0'))
  const seen = addTexts(seenOf.map(line => line.seen!))
  const differences = differenceKinds.flatMap(kind => {
    const own = seenOf.flatMap(line => line.differences.filter(one => one.kind === kind).map(one => one.amount))
    const amount = new Decimal(addTexts(own))
    return amount.eq(0) ? [] : [{ kind, amount }]
  })
  return {
    currency,
    promisedMonthly: addTexts(lines.map(line => line.promisedMonthly)),
    ...{ promised, seen },
    differences: inMinorUnits(differences, new Decimal(seen), new Decimal(promised), currency).map(({ kind, amount }) => ({
      ...{ kind, amount: scaledText(amount) },
    })),
    unseen: lines.length - seenOf.length,
    ...{ again: chargedBeside(lines.flatMap(line => line.again)), snapshots: chargedBeside(lines.flatMap(line => line.snapshots)) },
  }
}

const chargedBeside = (all: readonly { amount: DecimalText }[]) =>
  all.length ? { resources: all.length, amount: addTexts(all.map(({ amount }) => amount)) } : null

/** Groups a ledger, each group in one currency; lines stay in their order, groups stand where their first line does. */
export function groupLedger<L extends LedgerEntry>(lines: readonly L[], by: LedgerGroupedBy): LedgerGroup<L>[] {
  const groups = new Map<string, { label: string | null; currency: string; lines: L[] }>()
  for (const line of lines) {
    const label = by === 'each' ? line.id : by === 'month' ? line.doneAt.slice(0, 7) : line[by]
    const key = JSON.stringify([label, line.currency])
    const group = groups.get(key) ?? { label, currency: line.currency, lines: [] }
    groups.set(key, group)
    group.lines.push(line)
  }
  return [...groups].map(([key, group]) => ({ key, ...group, ...sumOf(group.lines, group.currency) }))
}

/** A ledger's totals, one for each currency. */
export const ledgerTotals = (lines: readonly LedgerEntry[]): LedgerSum[] =>
  [...new Set(lines.map(({ currency }) => currency))].map(currency =>
    sumOf(
      lines.filter(line => line.currency === currency),
      currency,
    ),
  )
