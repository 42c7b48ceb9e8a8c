import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  adjustedSums,
  adjustmentsBelow,
  adjustmentsLeft,
  type Adjustable,
  type Adjustment,
  type AdjustmentLine,
} from '../../../../core/allocation/closing/adjustments'
import type { StatementLine } from '../../../../core/allocation/statement'
import { scaled, scaledText } from '../../../../core/money/scaled'

type Bearer = [centre: string, currency: string, lines: StatementLine[]]
const direct = (service: string | null, amount: string): StatementLine => ({ kind: 'direct', service, amount })
const share = (poolId: string, amount: string, pool = poolId): StatementLine => ({
  ...{ kind: 'share' as const, pool, poolId, label: 'evenly', amount, ofPool: null, note: null },
})
const settled = (bearers: Bearer[], unallocated: [currency: string, amount: string][] = []): Adjustable => ({
  // what stands above the lines is of no account here
  statements: bearers.map(([centre, currency, lines]) => ({ centre, currency, direct: '0', shared: '0', total: '0', lines })),
  unallocated: unallocated.map(([currency, amount]) => ({ currency, amount })),
})
const brief = ({ centre, currency, cause, amount }: Adjustment) => [centre, currency, cause, amount]

const kept = settled(
  [
    ['ferry', 'EUR', [direct('Servers', '100.10'), share('network', '20')]],
    ['constructor', 'EUR', [direct(null, '-5')]],
    ['ferry', 'USD', [direct('Servers', '7')]],
  ],
  [['EUR', '30']],
)

describe('adjustments of a closed month', () => {
  it('say what late charges bring, by cost centre and line, and to what is on none', () => {
    const charges = settled(
      [
        ['ferry', 'EUR', [direct('Servers', '112.60'), direct('Disks', '-2.5'), share('network', '21')]],
        ['constructor', 'EUR', [direct(null, '-5')]],
        ['freight', 'EUR', [direct('Servers', '1')]],
      ],
      [
        ['EUR', '10'],
        ['EUR', '18'],
      ],
    )
    const left = adjustmentsLeft({ month: '2026-10', kept, charges, rules: null, posted: [] })
    // 112.60 - 100.10 = 12.50; - 2.50 of disks, + 1 of the network: 11. Nothing in USD is left: - 7. 28 of 30 are unallocated: - 2
    expect(left.map(brief)).toEqual([
      ['ferry', 'EUR', 'charges', '11'],
      ['ferry', 'USD', 'charges', '-7'],
      [null, 'EUR', 'charges', '-2'],
      ['freight', 'EUR', 'charges', '1'],
    ])
    expect(left[0]!.lines).toEqual([
      { kind: 'direct', service: 'Servers', amount: '12.5' },
      { kind: 'direct', service: 'Disks', amount: '-2.5' },
      { kind: 'share', pool: 'network', poolId: 'network', amount: '1' },
    ])
    expect(left.every(({ month }) => month === '2026-10')).toBe(true)
    expect(adjustedSums(left, 'EUR')).toEqual({ borne: '12', unallocated: '-2' })
    expect(adjustedSums(left, 'USD')).toEqual({ borne: '-7', unallocated: '0' })
    expect(adjustedSums(left, 'SEK')).toEqual({ borne: '0', unallocated: '0' })
    const tree = [
      { id: 'all', name: 'All', parent: null, owner: null },
      { id: 'ferry', name: 'Ferry', parent: 'all', owner: null },
      { id: 'freight', name: 'Freight', parent: 'all', owner: null },
    ]
    expect(adjustmentsBelow(tree, left, 'all')).toEqual([
      {
        ...{ month: '2026-10', centre: 'all', currency: 'EUR', cause: 'charges', amount: '12' },
        lines: [
          { kind: 'direct', service: 'Servers', amount: '13.5' },
          { kind: 'direct', service: 'Disks', amount: '-2.5' },
          { kind: 'share', pool: 'network', poolId: 'network', amount: '1' },
        ],
      },
      {
        ...{ month: '2026-10', centre: 'all', currency: 'USD', cause: 'charges', amount: '-7' },
        lines: [{ kind: 'direct', service: 'Servers', amount: '-7' }],
      },
    ])
    expect(adjustmentsBelow(tree, left, 'freight').map(brief)).toEqual([['freight', 'EUR', 'charges', '1']])
  })

  it('tell what other rules move from what other charges bring', () => {
    const charges = settled([['ferry', 'EUR', [direct('Servers', '101.10'), share('network', '20')]]], [['EUR', '30']])
    const rules = settled(
      [
        ['ferry', 'EUR', [direct('Servers', '1.10'), share('network', '20')]],
        ['freight', 'EUR', [direct('Servers', '100'), direct('Disks', '30')]],
      ],
      [],
    )
    const left = adjustmentsLeft({ month: '2026-10', kept, charges, rules, posted: [] })
    expect(left.map(brief)).toEqual([
      ['freight', 'EUR', 'rules', '130'],
      ['ferry', 'EUR', 'rules', '-100'],
      [null, 'EUR', 'rules', '-30'],
      ['ferry', 'USD', 'charges', '-7'],
      ['constructor', 'EUR', 'charges', '5'],
      ['ferry', 'EUR', 'charges', '1'],
    ])
  })

  it('do not bring again what a later month has carried, and take it back where it was too much', () => {
    const charges = settled([['ferry', 'EUR', [direct('Servers', '110.10'), share('network', '20')]], ...others], [['EUR', '30']])
    const first = adjustmentsLeft({ month: '2026-10', kept, charges, rules: null, posted: [] })
    expect(first.map(brief)).toEqual([['ferry', 'EUR', 'charges', '10']])
    expect(adjustmentsLeft({ month: '2026-10', kept, charges, rules: null, posted: first })).toEqual([])
    const back = adjustmentsLeft({ month: '2026-10', kept, charges: null, rules: null, posted: first })
    expect(back).toEqual([{ ...first[0], amount: '-10', lines: [{ kind: 'direct', service: 'Servers', amount: '-10' }] }])
    // what was carried of another month is nothing of this one
    expect(adjustmentsLeft({ month: '2026-09', kept, charges: null, rules: null, posted: first })).toEqual([])
  })

  it('say that a line moved where a cost centre bears as much as before', () => {
    const charges = settled([['ferry', 'EUR', [direct('Servers', '120.10')]], ...others], [['EUR', '30']])
    const [only, ...more] = adjustmentsLeft({ month: '2026-10', kept, charges, rules: null, posted: [] })
    expect(more).toEqual([])
    expect(only).toMatchObject({ centre: 'ferry', amount: '0' })
    expect(only!.lines.map(({ amount }) => amount)).toEqual(['20', '-20'])
  })

  it('know a pool by its id, also where it is called otherwise now', () => {
    const charges = settled([['ferry', 'EUR', [direct('Servers', '100.10'), share('network', '20', 'Lines')]], ...others], [['EUR', '30']])
    expect(adjustmentsLeft({ month: '2026-10', kept, charges, rules: null, posted: [] })).toEqual([])
  })
})

const others: Bearer[] = [
  ['constructor', 'EUR', [direct(null, '-5')]],
  ['ferry', 'USD', [direct('Servers', '7')]],
]

describe('whatever was closed, loaded since, changed and carried', () => {
  const amount = fc.bigInt({ min: -(10n ** 20n), max: 10n ** 20n }).map(scaledText)
  const name = fc.constantFrom('a', 'b', 'constructor')
  const line = fc.oneof(
    fc.tuple(fc.option(name, { nil: null }), amount).map(([service, sum]) => direct(service, sum)),
    fc.tuple(name, amount).map(([pool, sum]) => share(pool, sum)),
  )
  const settlement = fc
    .record({
      bearers: fc.array(fc.tuple(name, fc.constantFrom('EUR', 'USD'), fc.array(line, { maxLength: 4 })), { maxLength: 5 }),
      unallocated: fc.array(fc.tuple(fc.constantFrom('EUR', 'USD'), amount), { maxLength: 3 }),
    })
    .map(({ bearers, unallocated }) => settled(bearers as Bearer[], unallocated as [string, string][]))

  /** By bearer and line, what it comes to; nothing where that is zero. */
  const sums = (...parts: [Adjustable | Adjustment[], sign: bigint][]) => {
    const found = new Map<string, bigint>()
    const add = (key: unknown[], amount: string, sign: bigint) =>
      found.set(JSON.stringify(key), (found.get(JSON.stringify(key)) ?? 0n) + sign * scaled(amount))
    const keyOf = (line: StatementLine | AdjustmentLine) =>
      line.kind === 'direct' ? ['direct', line.service] : line.kind === 'share' ? ['share', line.poolId] : []
    for (const [part, sign] of parts) {
      if (Array.isArray(part)) {
        for (const { centre, currency, lines } of part) for (const own of lines) add([centre, currency, ...keyOf(own)], own.amount, sign)
        continue
      }
      for (const { centre, currency, lines } of part.statements)
        for (const own of lines) add([centre, currency, ...keyOf(own)], own.amount, sign)
      for (const own of part.unallocated) add([null, own.currency], own.amount, sign)
    }
    return new Map([...found].filter(([, sum]) => sum !== 0n).sort())
  }

  it('what was closed + what was carried + what is left is the month as it is now, line by line', () => {
    fc.assert(
      fc.property(settlement, settlement, settlement, settlement, fc.boolean(), (first, then, now, rules, hasRules) => {
        const posted = adjustmentsLeft({ month: 'm', kept: first, charges: then, rules: null, posted: [] })
        const left = adjustmentsLeft({ month: 'm', kept: first, charges: now, rules: hasRules ? rules : null, posted })
        expect(sums([first, 1n], [posted, 1n], [left, 1n])).toEqual(sums([hasRules ? rules : now, 1n]))
        for (const { amount, lines } of left) {
          expect(scaledText(lines.reduce((sum, own) => sum + scaled(own.amount), 0n))).toBe(amount)
          expect(lines.every(own => own.amount !== '0')).toBe(true)
        }
      }),
    )
  })
})
