import fc from 'fast-check'
import { expect, it } from 'vitest'
import { ALLOCATION_COLUMNS, allocationOf, sharedLines } from '../../../../core/allocation/statements/focus-lines'
import type { Settlement } from '../../../../core/allocation/settle'
import { scaled, scaledText } from '../../../../core/money/scaled'

const centre = (id: string, code?: string) => ({ id, name: `Centre ${id}`, parent: null, owner: null, ...(code && { code }) })
const names = {
  centres: [centre('ferry', '4100'), centre('constructor')],
  pools: [{ id: 'net', name: 'Network', method: 'even' as const }],
}
const columns = ['BilledCost', 'EffectiveCost', 'BillingCurrency', 'ChargeDescription', 'BillingPeriodEnd', 'SkuId']
type Line = Settlement['statements'][number]['lines'][number]
const share = (amount: string, poolId = 'net'): Line => ({ kind: 'share', pool: 'Network', poolId, label: 'evenly', amount, ofPool: null, note: null }) // prettier-ignore
const statement = (of: string, currency: string, lines: Line[]) => ({ centre: of, currency, direct: '0', shared: '0', total: '0', lines })

it('says of a charge whose it is', () => {
  expect([null, 'ferry', 'constructor', 'net', 'gone'].map(target => allocationOf(target, names))).toEqual([
    ['unallocated', null, null, null, null, null],
    ['direct', 'ferry', 'Centre ferry', '4100', null, null],
    ['direct', 'constructor', 'Centre constructor', null, null, null],
    ['pool', null, null, null, 'net', 'Network'],
    ['direct', 'gone', null, null, null, null],
  ])
})

it('takes what is borne off its pool, in the cost that is settled', () => {
  const settled = { statements: [statement('ferry', 'EUR', [{ kind: 'direct', service: 'x', amount: '9' }, share('6.8'), share('0')]), statement('constructor', 'EUR', [share('3.21')])] } // prettier-ignore
  const rows = sharedLines(settled, names, { month: '2026-02', measure: 'effectiveCost', columns })
  expect(rows).toEqual([
    ['0', '-10.01', 'EUR', 'Shared out of Network', '2026-03-01T00:00:00Z', null, 'pool shared out', null, null, null, 'net', 'Network'],
    ['0', '6.8', 'EUR', 'Share of Network, evenly', '2026-03-01T00:00:00Z', null, 'share of pool', 'ferry', 'Centre ferry', '4100', 'net', 'Network'],
    ['0', '3.21', 'EUR', 'Share of Network, evenly', '2026-03-01T00:00:00Z', null, 'share of pool', 'constructor', 'Centre constructor', null, 'net', 'Network'],
  ]) // prettier-ignore
})

it('adds up to nothing by pool and currency, whatever is borne', () => {
  const amount = fc.bigInt({ min: -(10n ** 20n), max: 10n ** 20n }).map(scaledText)
  const borne = fc.record({ centre: fc.constantFrom('ferry', 'constructor'), currency: fc.constantFrom('EUR', 'JPY'), pool: fc.constantFrom('net', '__proto__'), amount }) // prettier-ignore
  fc.assert(
    fc.property(fc.array(borne, { maxLength: 12 }), list => {
      const statements = list.map(one => statement(one.centre, one.currency, [share(one.amount, one.pool)]))
      const rows = sharedLines({ statements }, names, { month: '2026-10', measure: 'billedCost', columns })
      expect(rows.every(row => row.length === columns.length + ALLOCATION_COLUMNS.length)).toBe(true)
      const sums = new Map<string, bigint>()
      for (const row of rows) {
        const key = `${row[2]} ${row.at(-2)}`
        sums.set(key, (sums.get(key) ?? 0n) + scaled(row[0]!))
      }
      expect([...sums.values()].every(sum => sum === 0n)).toBe(true)
      const shares = rows.filter(row => row.includes('share of pool')).length
      expect(shares).toBe(list.filter(one => one.amount !== '0').length)
    }),
  )
})
