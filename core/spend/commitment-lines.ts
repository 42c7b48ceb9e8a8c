import { scaled, scaledText, type Scaled } from '../money/scaled'
import type { AnswerRow } from './question'

/** What commitment lines are made of: charges by these, by month. */
export const commitmentSplits = ['CommitmentDiscountId', 'CommitmentDiscountName', 'ChargeCategory', 'CommitmentDiscountStatus'] as const

/** A commitment's money over a period: as it was billed, and as cost spread over what it covers. Decimal text in one currency. */
export type CommitmentMoney = {
  /** Purchases billed in the period, and what else is billed under it. */
  purchased: string
  billedOther: string
  billed: string
  /** Effective cost of what it covers, of what of it nobody used, and what else is effective under it. */
  used: string
  unused: string
  other: string
  effective: string
  /** Effective less billed. */
  difference: string
}
/** A commitment with its money, month by month. */
export type CommitmentLine = CommitmentMoney & {
  /** Empty for everything that no commitment covers. */
  id: string
  name: string
  currency: string
  months: { start: string; billed: string; effective: string }[]
  /** Why effective cost and what was billed differ, in words. */
  why: string
}

type Sums = Record<'purchased' | 'billedOther' | 'used' | 'unused' | 'other', Scaled>
type Line = { id: string; name: string; currency: string; sums: Sums; months: Map<string, { billed: Scaled; effective: Scaled }> }

/**
 * Billed beside effective cost, commitment by commitment; what none covers stands last, as one line to a currency.
 * @param billed rows of billed cost by `commitmentSplits` and month. @param effective the same of effective cost.
 * @returns the lines, and their totals by currency in the order of the lines.
 */
export function commitmentLines(
  billed: readonly AnswerRow[],
  effective: readonly AnswerRow[],
): { lines: CommitmentLine[]; totals: (CommitmentMoney & { currency: string })[] } {
  const found = new Map<string, Line>()
  const lineOf = ({ values, currency }: AnswerRow): Line => {
    const id = values.CommitmentDiscountId ?? ''
    const key = JSON.stringify([id, currency])
    const known = found.get(key)
    if (known) return known
    const name = values.CommitmentDiscountName ?? (id || 'everything else')
    const line = { id, name, currency, sums: { purchased: 0n, billedOther: 0n, used: 0n, unused: 0n, other: 0n }, months: new Map() }
    found.set(key, line)
    return line
  }
  const add = (row: AnswerRow, into: keyof Sums, side: 'billed' | 'effective', line: Line) => {
    const amount = scaled(row.amount)
    line.sums[into] += amount
    const month = line.months.get(row.start!) ?? { billed: 0n, effective: 0n }
    line.months.set(row.start!, month)
    month[side] += amount
  }
  for (const row of billed) {
    const line = lineOf(row)
    add(row, row.values.ChargeCategory === 'Purchase' && line.id ? 'purchased' : 'billedOther', 'billed', line)
  }
  for (const row of effective) {
    const { CommitmentDiscountStatus: status } = row.values
    add(row, status === 'Used' ? 'used' : status === 'Unused' ? 'unused' : 'other', 'effective', lineOf(row))
  }
  const inOrder = [...found.values()].sort((a, b) => (a.id === b.id ? 0 : a.id === '' ? 1 : b.id === '' ? -1 : a.id < b.id ? -1 : 1))
  const currencies = [...new Set(inOrder.map(({ currency }) => currency))]
  return {
    lines: inOrder.map(({ id, name, currency, sums, months }) => ({
      ...{ id, name, currency, why: whyOf(id, sums) },
      ...moneyOf(sums),
      months: [...months]
        .sort(([a], [b]) => (a < b ? -1 : 1))
        .map(([start, month]) => ({ start, billed: scaledText(month.billed), effective: scaledText(month.effective) })),
    })),
    totals: currencies.map(currency => {
      const own = inOrder.filter(line => line.currency === currency)
      const sum = (name: keyof Sums) => own.reduce((total, { sums }) => total + sums[name], 0n)
      const sums = {
        purchased: sum('purchased'),
        billedOther: sum('billedOther'),
        used: sum('used'),
        unused: sum('unused'),
        other: sum('other'),
      }
      return { currency, ...moneyOf(sums) }
    }),
  }
}

const billedOf = ({ purchased, billedOther }: Sums) => purchased + billedOther
const effectiveOf = ({ used, unused, other }: Sums) => used + unused + other

const moneyOf = (sums: Sums): CommitmentMoney => ({
  purchased: scaledText(sums.purchased),
  billedOther: scaledText(sums.billedOther),
  billed: scaledText(billedOf(sums)),
  used: scaledText(sums.used),
  unused: scaledText(sums.unused),
  other: scaledText(sums.other),
  effective: scaledText(effectiveOf(sums)),
  difference: scaledText(effectiveOf(sums) - billedOf(sums)),
})

function whyOf(id: string, sums: Sums): string {
  const difference = effectiveOf(sums) - billedOf(sums)
  if (!id) return difference === 0n ? 'as billed' : 'effective cost that the provider reports otherwise than billed'
  if (difference === 0n) return 'paid as it is used'
  return difference > 0n ? 'paid for before this period, or less paid in it than used' : 'paid in this period for later use'
}
