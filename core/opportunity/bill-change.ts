import { minorDecimals } from '../money/currency'
import type { Decimal, DecimalText } from '../money/decimal'
import { decimalText, zero } from '../money/decimal'
import { cutToAdd } from '../money/whole-units'
import { roundToMinor } from '../money/rounding'
import { minorUnit, scaled, scaledText } from '../money/scaled'
import { effectNames } from '../spend/compare'
import type { Comparison } from '../spend/compare'

/**
 * What the change of a whole bill is made of: what was done about savings; what the resources that were acted on would have done without
 * that; and of all others what `compare` tells apart.
 */
export const billChangeKinds = ['saved', 'otherwise', ...effectNames] as const
export type BillChangeKind = (typeof billChangeKinds)[number]

/** A bill against that of the same days before, in one currency; the parts, in its minor unit, add to what lies between. */
export type BillChange = { currency: string; before: DecimalText; now: DecimalText; parts: { kind: BillChangeKind; amount: DecimalText }[] }

/** A saving that is seen in the days of a bill, and in the same days of the bill before. */
export type SeenTwice = { currency: string; now: Decimal; before: Decimal }

/**
 * Explains the change of a bill: change = − (saved now − saved before) + what the resources acted on did otherwise + the effects of all
 * others. What they did otherwise is what is left of their own change: exact in each currency.
 * @param acted the charges of the resources that were acted on, in both bills. @param others those of all others.
 */
export function billChanges(acted: Comparison['totals'], others: Comparison['totals'], seen: readonly SeenTwice[]): BillChange[] {
  const currencies = [...new Set([...acted, ...others].map(({ currency }) => currency))].sort()
  return currencies.map(currency => {
    const [own, rest] = [acted, others].map(totals => totals.find(total => total.currency === currency))
    const [now, before] = (['now', 'before'] as const).map(which => zero.plus(own?.[which] ?? 0).plus(rest?.[which] ?? 0)) as [
      Decimal,
      Decimal,
    ]
    const saved = seen.filter(one => one.currency === currency).reduce((sum, one) => sum.plus(one.now).minus(one.before), zero)
    const parts: [BillChangeKind, Decimal][] = [
      ['saved', saved.times(-1)],
      ['otherwise', zero.plus(own?.difference ?? 0).plus(saved)],
      ...effectNames.map(name => [name, zero.plus(rest?.effects[name] ?? 0)] as [BillChangeKind, Decimal]),
    ]
    const target = roundToMinor(now, currency).minus(roundToMinor(before, currency))
    const cut = cutToAdd(
      parts.map(([, amount]) => scaled(amount.round(DECIMALS).toFixed())),
      scaled(target.toFixed()),
      minorUnit(minorDecimals(currency)),
    )
    return {
      ...{ currency, before: decimalText(before), now: decimalText(now) },
      parts: parts.flatMap(([kind], at) => (cut[at] === 0n ? [] : [{ kind, amount: scaledText(cut[at]!) }])),
    }
  })
}

/** Decimals that a part is told in before it is cut. */
const DECIMALS = 10
