// Whatever the trees, rules, pools, serving, signs, currencies and costs: what is borne and what is on none is the bill, to the last digit.
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { adjustmentsLeft } from '../../../core/allocation/closing/adjustments'
import { journalOf } from '../../../core/allocation/statements/journal'
import { monthStatements } from '../../../core/allocation/statements/month-statements'
import { allocationPlanSchema, servingMethods, type AllocationPlan, type Pool } from '../../../core/allocation/plan'
import { settleInSlices, type Settlement } from '../../../core/allocation/settle'
import { shareWorking } from '../../../core/allocation/share-working'
import { decimalText } from '../../../core/money/decimal'
import { scaled } from '../../../core/money/scaled'
import { evaluate } from '../../../core/working/working'
import { toEnd } from '../../../core/spend/slices'
import { cubeOf, plainCharge, type PlainCharge } from '../../support/random-charges'

const MONTH = '2026-09'
const centreIds = ['root', 'a', 'b', 'c', 'constructor']
const poolIds = ['p', 'q', 'r']
const bound = fc.option(fc.constantFrom('2026-08-01', '2026-09-10', '2026-10-01', '2026-11-01'), { nil: null })
const centres = fc
  .tuple(fc.array(fc.nat(10), { minLength: 4, maxLength: 4 }), fc.array(fc.tuple(bound, bound), { minLength: 4, maxLength: 4 }))
  .map(([parents, days]) =>
    centreIds.map((id, i) => {
      if (i === 0) return { id, name: id, parent: null, owner: null }
      const [one, other] = days[i - 1]!
      const [from, until] = one && other && one >= other ? [other, null] : [one, other]
      return { id, name: id, parent: centreIds[parents[i - 1]! % i]!, owner: null, from, until }
    }),
  )
const among = fc.option(
  fc.oneof(
    fc.constant({ of: 'everyone' as const }),
    fc.constant({ of: 'with cost' as const }),
    fc.constantFrom(...centreIds).map(centre => ({ of: 'subtree' as const, centre })),
    fc.subarray(centreIds, { minLength: 1 }).map(list => ({ of: 'list' as const, centres: list })),
  ),
  { nil: undefined },
)
const share = fc.integer({ min: 1, max: 99 }).map(String)
const pool = (id: string): fc.Arbitrary<Pool> => {
  const base = fc.record({ id: fc.constant(id), name: fc.constant(id), among })
  return fc.oneof(
    base.map(own => ({ ...own, method: 'direct cost' as const })),
    base.map(own => ({ ...own, method: 'direct cost' as const, services: ['Servers'] })),
    base.map(own => ({ ...own, method: 'even' as const })),
    base.map(own => ({ ...own, method: 'quantity' as const, measure: 'pricingQuantity' as const, unit: 'Hours', conditions: [] })),
    fc
      .dictionary(fc.constantFrom(...centreIds, ...poolIds), share, { minKeys: 1, maxKeys: 4 })
      .map(shares => ({ ...{ id, name: id, method: 'shares' as const, shares } })),
  )
}
const rule = fc.record({
  dimension: fc.constantFrom('Tags/team', 'SubAccountName', 'ServiceName'),
  values: fc.subarray(['a', 'b', 'live', 'rehearsal', 'Servers', 'Disks', null], { minLength: 1 }),
  target: fc.constantFrom(...centreIds, ...poolIds),
  from: fc.option(fc.constantFrom('2026-09-05', '2026-09-20'), { nil: null }),
})
const plan: fc.Arbitrary<AllocationPlan> = fc
  .record({
    centres,
    pools: fc.tuple(...poolIds.map(pool)),
    serving: fc.option(fc.constantFrom(...servingMethods), { nil: undefined }),
    rules: fc
      .array(rule, { maxLength: 8 })
      .map(rules => rules.map(({ dimension, values, ...rest }, i) => ({ id: `r${i}`, conditions: [{ dimension, values }], ...rest }))),
  })
  .filter(made => allocationPlanSchema.safeParse(made).success)
const charges = fc.array(plainCharge, { maxLength: 40 })
const measure = fc.constantFrom('billedCost' as const, 'listCost' as const)

const settle = (list: PlainCharge[], own: AllocationPlan, of: 'billedCost' | 'listCost', reportCurrency: string | null): Settlement =>
  toEnd(
    settleInSlices(cubeOf(list), own, {
      ...{ month: MONTH, measure: of, reportCurrency },
      rates: [{ from: 'USD', to: 'EUR', validFrom: '2026-09-01', rate: '0.9' }],
    }),
  )
const sums = (list: readonly { currency: string; amount: string }[]) => {
  const found = new Map<string, bigint>()
  for (const { currency, amount } of list) found.set(currency, (found.get(currency) ?? 0n) + scaled(amount))
  return Object.fromEntries([...found].filter(([, sum]) => sum !== 0n).sort())
}
const borne = ({ statements, unallocated }: Settlement) => sums([...statements.map(one => ({ ...one, amount: one.total })), ...unallocated])

it('statements and what is unallocated are the charges, in every currency; so are the files of a month', () => {
  fc.assert(
    fc.property(plan, charges, measure, fc.constantFrom(null, 'EUR', 'USD', 'NOK'), (own, list, of, reportCurrency) => {
      const settled = settle(list, own, of, reportCurrency)
      const bill = sums(
        list.map(({ currency, amount, list: listCost }) => ({ currency, amount: of === 'listCost' ? (listCost ?? amount) : amount })),
      )
      expect(borne(settled)).toEqual(bill)
      expect(settled.proof.every(({ equal }) => equal)).toBe(true)
      const month = monthStatements({ month: MONTH, measure: of }, { ...settled, adjustments: [], closed: null }, own.centres)
      expect(sums([...month.statements, ...month.unallocated].map(one => ({ ...one, amount: one.toBear })))).toEqual(bill)
      // each share says how it came about, to the last digit
      for (const { currency, lines } of settled.statements)
        for (const line of lines) {
          if (line.kind !== 'share') continue
          const intoPool = own.rules.filter(({ target }) => target === line.poolId).map(({ id }) => id)
          const put = settled.catches.filter(one => one.currency === currency && intoPool.includes(one.rule))
          const working = shareWorking(
            line,
            put.map(({ rule, amount }) => ({ words: rule, amount })),
            currency,
            2,
          )
          expect(decimalText(evaluate(working!))).toBe(line.amount)
        }
      for (const { debit, credit } of journalOf(month, () => 2)) expect(debit ?? credit).toMatch(/^\d+(\.\d\d?)?$/)
    }),
    { numRuns: 150 },
  )
})

it('what was closed, with what it is adjusted by, is the month as it is now, for every cost centre', () => {
  const byCentre = ({ statements, unallocated }: Settlement) => [
    ...statements.map(one => ({ currency: `${one.centre} ${one.currency}`, amount: one.total })),
    ...unallocated.map(one => ({ currency: `none ${one.currency}`, amount: one.amount })),
  ]
  fc.assert(
    fc.property(plan, plan, charges, charges, (then, now, before, since) => {
      const kept = settle(before, then, 'billedCost', 'EUR')
      const late = settle([...before, ...since], then, 'billedCost', 'EUR')
      const today = settle([...before, ...since], now, 'billedCost', 'EUR')
      const left = adjustmentsLeft({ month: MONTH, kept, charges: late, rules: today, posted: [] })
      const adjusted = left.map(({ centre, currency, amount }) => ({ currency: `${centre ?? 'none'} ${currency}`, amount }))
      expect(sums([...byCentre(kept), ...adjusted])).toEqual(sums(byCentre(today)))
      // what is adjusted in all is what the charges are more
      expect(sums(left.filter(({ cause }) => cause === 'charges'))).toEqual(sums(since))
      expect(sums(left.filter(({ cause }) => cause === 'rules'))).toEqual({})
    }),
    { numRuns: 60 },
  )
})
