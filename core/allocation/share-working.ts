import Big from 'big.js'
import { Decimal, decimalText } from '../money/decimal'
import { minorUnit, scaled, scaledText } from '../money/scaled'
import { add, divide, evaluate, input, multiply, subtract, type Working } from '../working/working'
import type { StatementLine } from './statement'

type Shared = Extract<StatementLine, { kind: 'share' }>
/** What rules put on a pool in the month: each rule in words, with its amount. */
export type PutOnPool = readonly { words: string; amount: string }[]

/**
 * How a share of a pool came about, as a tree that evaluates to it: what rules and other pools put on the pool, the cost centre's part of
 * the base, and what rounding to whole minor units by largest remainders added.
 * @param put amounts that rules put on the pool, in the currency of the share.
 * @param decimals of the currency's minor unit.
 * @returns null where the base is not told: it is not for whoever asks, or was not kept.
 */
export function shareWorking({ base, ofPool, amount, pool }: Shared, put: PutOnPool, currency: string, decimals: number): Working | null {
  if (!base || ofPool === null) return null
  const unit = minorUnit(decimals)
  const below = scaled(base.borne) % unit
  const borne = bornePool(pool, { ofPool, borne: base.borne }, put, currency)
  const divided = below === 0n ? borne : subtract('in whole minor units', [borne, input('below a minor unit', scaledText(below), currency)])
  const exact = divide('exact share', [
    multiply('times its part of the base', [divided, input('its part of the base', base.part, base.unit)]),
    input('the base of all', base.of, base.unit),
  ])
  const whole = wholeUnits(evaluate(exact), new Decimal(scaledText(unit)))
  const beyond = scaled(decimalText(new Decimal(amount).minus(whole)))
  const left = beyond % unit
  return add(`share of ${pool}`, [
    exact,
    input('cut to whole minor units', whole.minus(evaluate(exact)), currency),
    input('of what that leaves over, by largest remainders', scaledText(beyond - left), currency),
    input('below a minor unit, with the largest share', scaledText(left), currency),
  ])
}

/** The whole units in an amount, cut towards zero. */
function wholeUnits(amount: Decimal, unit: Decimal): Decimal {
  return amount.div(unit).round(0, Big.roundDown).times(unit)
}

/** What cost centres bear of a pool: what rules put on it and other pools serve it with, less what it serves other pools with. */
function bornePool(pool: string, { ofPool, borne }: { ofPool: string; borne: string }, put: PutOnPool, currency: string): Working {
  const rules = put.map(({ words, amount }) => input(words, amount, currency))
  const byRules = put.reduce((sum, { amount }) => sum + scaled(amount), 0n)
  const served = scaled(ofPool) - byRules
  const serves = scaled(ofPool) - scaled(borne)
  const has = add(
    `${pool} has`,
    served === 0n ? rules : [add('put on it by rules', rules), input('from pools that serve it', scaledText(served), currency)],
  )
  return serves === 0n
    ? has
    : subtract(`cost centres bear of ${pool}`, [
        has,
        input('to pools that it serves, and to cut to minor units', scaledText(serves), currency),
      ])
}
