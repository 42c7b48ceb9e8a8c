import fc from 'fast-check'
import { expect, it } from 'vitest'
import type { Adjustment } from '../../../../core/allocation/closing/adjustments'
import { CLEARING, journalOf } from '../../../../core/allocation/statements/journal'
import { monthStatements, type MonthStatements } from '../../../../core/allocation/statements/month-statements'
import { statementHeads, statementRows } from '../../../../core/allocation/statements/statement-rows'
import type { UpliftLine } from '../../../../core/allocation/uplift-lines'
import type { Statement } from '../../../../core/allocation/statement'
import { scaled, scaledText } from '../../../../core/money/scaled'

const centres = [
  { id: 'ferry', name: 'Ferry', parent: 'top', owner: 'fenna', code: '4100' },
  { id: 'top', name: 'Top', parent: null, owner: null },
  { id: 'constructor', name: 'Yard', parent: 'top', owner: null },
]
const statement = (centre: string, currency: string, ...lines: Statement['lines']): Statement => ({
  ...{ centre, currency, lines, direct: '0', shared: '0', total: '0' },
})
const direct = (service: string | null, amount: string): Statement['lines'][number] => ({ kind: 'direct', service, amount })
const adjustment = (centre: string | null, amount: string, currency = 'EUR'): Adjustment => ({
  ...{ month: '2026-09', centre, currency, cause: 'charges', amount },
  lines: [centre === null ? { kind: 'unallocated', amount } : { kind: 'direct', service: 'Disks', amount }],
})
const uplift = (centre: string | null, amount: string, times: UpliftLine['times'], currency = 'EUR'): UpliftLine => ({
  ...{ centre, set: 'care', name: 'Care', label: 'on-call', currency, amount, times },
  pool: times === null ? { id: 'net', name: 'Network' } : null,
})
const made = monthStatements(
  { month: '2026-10', measure: 'billedCost' },
  {
    closed: null,
    statements: [
      statement('constructor', 'EUR', direct(null, '-1.005')),
      statement('ferry', 'USD', direct('Servers', '3')),
      statement(...(['ferry', 'EUR'] as const), direct('Servers', '60.004'), {
        kind: 'share',
        pool: 'Network',
        poolId: 'net',
        label: 'evenly',
        amount: '6.01',
        ofPool: '12.02',
        note: 'nobody else',
      }),
    ],
    unallocated: [{ values: {}, currency: 'EUR', amount: '2.5', resources: 1, count: 1 }, { values: {}, currency: 'EUR', amount: '0.001', resources: 1, count: 1 }], // prettier-ignore
    adjustments: [adjustment('ferry', '-13.03'), adjustment(null, '0.995'), adjustment('gone', '4')],
    uplifts: [
      uplift('ferry', '25', { quantity: '2', unit: 'each', price: '12.50' }),
      uplift('ferry', '1.5', { quantity: '75', unit: '%', price: '2' }),
      uplift('constructor', '3', null, 'CHF'),
      uplift(null, '12.5', { quantity: '1', unit: 'each', price: '12.50' }),
    ],
  },
  centres,
)

it('stands a month on cost centres in the order of the tree, with adjustments below, also of one that is no longer there', () => {
  expect(made.statements.map(({ centre, currency, total, toBear }) => [centre.name, currency, total, toBear])).toEqual([
    ['Ferry', 'EUR', '66.014', '52.984'],
    ['Ferry', 'USD', '3', '3'],
    // uplifts alone, in a currency that nothing is billed in
    ['Yard', 'CHF', '0', '0'],
    ['Yard', 'EUR', '-1.005', '-1.005'],
    ['gone', 'EUR', '0', '4'],
  ])
  expect(made.unallocated.map(({ currency, total, toBear }) => [currency, total, toBear])).toEqual([['EUR', '2.501', '3.496']])
})

it('stands beside the month before, and beside what one of a business measure costs', () => {
  const unit = { measure: 'crossings', unit: 'crossing', quantity: '2', unitCost: '1.5', before: null, currency: 'EUR' }
  const beside = {
    to: null,
    before: {
      month: '2026-09',
      totals: [
        { centre: 'ferry', currency: 'EUR', total: '7' },
        { centre: 'top', currency: 'EUR', total: '9' },
      ],
    },
    unitCosts: [{ ...unit, centre: 'ferry' }, { ...unit, centre: 'top' }], // prettier-ignore
  }
  const settled = { closed: null, unallocated: [], adjustments: [], uplifts: [], statements: [statement('ferry', 'EUR'), statement('ferry', 'USD'), statement('constructor', 'EUR')] } // prettier-ignore
  const own = monthStatements({ month: '2026-10', measure: 'billedCost' }, settled, centres, beside)
  expect(own.monthBefore).toBe('2026-09')
  // what was not there cost nothing; a unit cost is of all currencies, and stands once
  expect(own.statements.map(one => [one.centre.id, one.currency, one.before, one.unitCosts.length])).toEqual([
    ['ferry', 'EUR', '7', 1],
    ['ferry', 'USD', '0', 0],
    ['constructor', 'EUR', '0', 0],
  ])
  // nothing of the month before is loaded: nothing is compared
  expect([made.monthBefore, made.statements[0]!.before]).toEqual([null, null])
})

it('is a table whose amounts add up to the bill and the adjustments', () => {
  const rows = statementRows(made, id => `name of ${id}`)
  expect(rows.every(row => row.length === statementHeads.length)).toBe(true)
  expect(rows.slice(0, 3)).toEqual([
    ['2026-10', 'Ferry', '4100', 'name of fenna', 'EUR', 'direct', 'Servers', null, null, '60.004', null],
    ['2026-10', 'Ferry', '4100', 'name of fenna', 'EUR', 'share', 'Network', 'evenly; nobody else', '12.02', '6.01', null],
    ['2026-10', 'Ferry', '4100', 'name of fenna', 'EUR', 'adjustment', 'Disks', '2026-09: late or corrected charges', null, '-13.03', null],
  ])
  expect(rows.slice(3, 6)).toEqual([
    ['2026-10', 'Ferry', '4100', 'name of fenna', 'EUR', 'uplift', 'Care: on-call', '2 × 12.50', null, null, '25'],
    ['2026-10', 'Ferry', '4100', 'name of fenna', 'EUR', 'uplift', 'Care: on-call', '2 % of 75', null, null, '1.5'],
    ['2026-10', 'Ferry', '4100', 'name of fenna', 'USD', 'direct', 'Servers', null, null, '3', null],
  ])
  const names = rows.map(row => row[1])
  expect(names).toEqual([...Array.from({ length: 6 }, () => 'Ferry'), 'Yard', 'Yard', 'gone', 'unallocated', 'unallocated', 'unallocated'])
  expect(rows[6]!.slice(4)).toEqual(['CHF', 'uplift', 'Care: on-call', 'its part of Network', null, null, '3'])
  const euro = rows.filter(row => row[4] === 'EUR').reduce((sum, row) => sum + scaled(row.at(-2) ?? '0'), 0n)
  // 60.004 + 6.01 - 1.005 + 2.501 on the bill; - 13.03 + 4 + 0.995 of adjustments
  expect(scaledText(euro)).toBe('59.475')
})

it('is a journal in whole cents that balances', () => {
  // 52.984, -1.005, 4, 3.496: 59.475, rounded 59.48
  const lines = journalOf(made, () => 2)
  expect(lines.map(({ account, currency, debit, credit }) => [account, currency, debit, credit])).toEqual([
    // uplifts are in no bill: they stand against an account of their own
    ['constructor', 'CHF', '3', null],
    ['uplifts', 'CHF', null, '3'],
    ['4100', 'EUR', '52.99', null],
    ['constructor', 'EUR', null, '1'],
    ['gone', 'EUR', '4', null],
    ['unallocated', 'EUR', '3.49', null],
    ['clearing', 'EUR', null, '59.48'],
    ['4100', 'EUR', '26.5', null],
    ['uplifts', 'EUR', null, '26.5'],
    ['4100', 'USD', '3', null],
    ['clearing', 'USD', null, '3'],
  ])
  expect(journalOf({ ...made, statements: [], unallocated: [] }, () => 2)).toEqual([])
})

it('balances in every currency, whatever is borne', () => {
  const amount = fc.bigInt({ min: -(10n ** 20n), max: 10n ** 20n }).map(scaledText)
  const bearer = fc.record({ currency: fc.constantFrom('EUR', 'JPY'), toBear: amount })
  fc.assert(
    fc.property(fc.array(bearer, { maxLength: 8 }), fc.array(bearer, { maxLength: 2 }), (own, nobody) => {
      const month: MonthStatements = {
        ...{ month: '2026-10', measure: 'billedCost', closed: null, monthBefore: null, to: null },
        statements: own.map(one => ({
          ...one,
          centre: centres[0]!,
          lines: [],
          total: '0',
          adjustments: [],
          uplifts: [],
          before: null,
          unitCosts: [],
        })),
        unallocated: nobody.map(one => ({ ...one, total: '0', adjustments: [], uplifts: [] })),
      }
      const lines = journalOf(month, currency => (currency === 'JPY' ? 0 : 2))
      for (const currency of new Set([...own, ...nobody].map(one => one.currency))) {
        const here = lines.filter(one => one.currency === currency)
        const side = (which: 'debit' | 'credit', isMeant = (_: string) => true) =>
          here.reduce((sum, one) => (isMeant(one.account) ? sum + scaled(one[which] ?? '0') : sum), 0n)
        expect(side('debit')).toBe(side('credit'))
        const isCentre = (account: string) => account !== CLEARING.account
        const borne = [...own, ...nobody].filter(one => one.currency === currency).reduce((sum, one) => sum + scaled(one.toBear), 0n)
        const off = side('debit', isCentre) - side('credit', isCentre) - borne
        const unit = scaled(currency === 'JPY' ? '1' : '0.01')
        expect(off * 2n <= unit && off * 2n >= -unit).toBe(true)
      }
    }),
  )
})
