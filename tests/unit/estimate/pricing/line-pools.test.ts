// One line of a rate card that several rows draw on, by itself. Figures worked out by hand.
import { describe, expect, it } from 'vitest'
import { LinePool, lineKey, poolLines, type Drawn } from '../../../../core/estimate/pricing/line-pools'
import type { PriceLine } from '../../../../core/ratecard/rate-card'
import { evaluate, input, type Working } from '../../../../core/working/working'
import { outline } from '../../../support/outline'

/** 2 each for the first 10, then 1. */
const line: PriceLine = {
  ...{ sku: 'LINE', service: 's', meter: 'transfer-out-gb', variant: null, region: 'here', unit: 'GB' },
  tiering: 'graduated',
  tiers: [
    { from: '0', price: '2' },
    { from: '10', price: '1' },
  ],
}
const draws = (id: string, quantity: number | number[], of: PriceLine = line): Drawn => {
  const working = (n: number) => input(`GB of ${id}`, n, 'GB')
  return { id, label: `row ${id}`, provider: 'P', line: of, quantity: Array.isArray(quantity) ? quantity.map(working) : working(quantity) }
}
const text = (working: Working) => evaluate(working).toFixed()

describe('a line that is shared', () => {
  const [a, b, c] = [draws('a', 4), draws('b', 12), draws('c', 4)]
  const pool = new LinePool(line, [c, a, b], false)
  it('costs what the sum costs; each bears its part, the last by id what is left', () => {
    // 20 GB: 10 × 2 + 10 × 1 = 30; 4 of 20 bear 6, 12 bear 18, the last 30 − 6 − 18
    expect(text(pool.total(0))).toBe('20')
    expect(text(pool.cost(0))).toBe('30')
    expect([a, b, c].map(one => text(pool.share(one, 0)))).toEqual(['6', '18', '6'])
    expect(outline(pool.share(a, 0))).toEqual([
      'row a, in proportion to what is drawn = 6',
      '  cost of the line × own quantity = 120',
      '    all rows that draw on the line = 30 GB [LINE]',
      '      what all rows draw = 20 GB',
      '        GB of a = 4 GB',
      '        GB of b = 12 GB',
      '        GB of c = 4 GB',
      '      free units = 0',
      '    GB of a = 4 GB',
      '  what all rows draw = 20 GB',
      '    GB of a = 4 GB',
      '    GB of b = 12 GB',
      '    GB of c = 4 GB',
    ])
    const [head, ...parts] = outline(pool.share(c, 0))
    expect(head).toBe('row c, what is left of the line = 6')
    expect(parts.filter(part => /^ {2}\S/.test(part)).map(part => part.trim())).toEqual([
      'all rows that draw on the line = 30 GB [LINE]',
      'row a, in proportion to what is drawn = 6',
      'row b, in proportion to what is drawn = 18',
    ])
  })
  it('is worked out once: the very same Workings come again', () => {
    expect(pool.share(a, 0)).toBe(pool.share(a, 0))
    expect(pool.cost(0)).toBe(pool.cost(0))
    expect(pool.share(a, 0)).not.toBe(pool.share(a, 1))
  })
  it('a row alone is priced by itself, under its own name', () => {
    const alone = new LinePool(line, [b], false)
    expect(outline(alone.share(b, 0))).toEqual(['row b = 22 GB [LINE]', '  GB of b = 12 GB', '  free units = 0']) // 10 × 2 + 2 × 1
    expect(alone.total(0)).toBe(b.quantity)
  })
  it('where nobody draws anything all bear nothing', () => {
    const idle = [draws('a', 0), draws('b', 0)]
    expect(idle.map(one => text(new LinePool(line, idle, false).share(one, 0)))).toEqual(['0', '0'])
  })
  it('goes month by month; behind the last month it is as in that', () => {
    const [falling, steady] = [draws('a', [18, 6]), draws('b', 2)]
    const months = new LinePool(line, [falling, steady], false)
    expect(months.months).toBe(2)
    expect(new LinePool(line, [steady, draws('c', [])], false).months).toBe(0)
    // 20 GB: 30, of which 2 of 20; 8 GB: 16, of which 2 of 8
    expect([0, 1, 2, 40].map(month => [text(months.cost(month)), text(months.share(steady, month))])).toEqual([
      ['30', '3'],
      ['16', '4'],
      ['16', '4'],
      ['16', '4'],
    ])
    expect(text(new LinePool(line, [draws('a', []), steady], false).total(3))).toBe('2')
  })
})

describe('what another way to pay would bear', () => {
  const [a, b] = [draws('a', 4), draws('b', 16)]
  const pool = new LinePool(line, [a, b], false)
  it('takes the place of what the row draws now', () => {
    // beside 16: 9 instead of 4 makes 25, which cost 20 + 15 = 35; 9 of 25 bear 12.6
    const instead = draws('a', 9)
    expect(outline(pool.wouldBear(instead, [instead], [a], 0))).toEqual([
      'row a, in proportion to what is drawn = 12.6',
      '  cost of the line × own quantity = 315',
      '    all rows that would draw on the line = 35 GB [LINE]',
      '      what all rows would draw = 25 GB',
      '        what other rows draw = 16',
      '          what all rows draw = 20 GB',
      '            GB of a = 4 GB',
      '            GB of b = 16 GB',
      '          GB of a = 4 GB',
      '        GB of a = 9 GB',
      '      free units = 0',
      '    GB of a = 9 GB',
      '  what all rows would draw = 25 GB',
      '    what other rows draw = 16',
      '      what all rows draw = 20 GB',
      '        GB of a = 4 GB',
      '        GB of b = 16 GB',
      '      GB of a = 4 GB',
      '    GB of a = 9 GB',
    ])
  })
  it('comes on top where the row draws nothing now, and stands alone where nobody else draws', () => {
    const added = draws('c', 5)
    expect(text(pool.wouldBear(added, [added], [], 0))).toBe('7') // 25 GB: 35, of which 5
    const alone = new LinePool(line, [a], false)
    const instead = draws('a', 9)
    expect(outline(alone.wouldBear(instead, [instead], [a], 0))[0]).toBe('row a = 18 GB [LINE]')
  })
  it('is nothing where it draws nothing and nobody else does', () => {
    const idle = new LinePool(line, [draws('a', 0), draws('b', 0)], false)
    const instead = draws('c', 0)
    expect(text(idle.wouldBear(instead, [instead], [], 0))).toBe('0')
  })
  it('counts on free units where the others do', () => {
    const free: PriceLine = { ...line, freeAllowance: '3' }
    const own = draws('a', 4, free)
    const instead = draws('a', 9, free)
    // 9 less 3 free are 6 × 2; without 18
    expect(text(new LinePool(free, [own], true).wouldBear(instead, [instead], [own], 0))).toBe('12')
    expect(text(new LinePool(free, [own], false).wouldBear(instead, [instead], [own], 0))).toBe('18')
  })
})

describe('pools of an estimate', () => {
  const plain: PriceLine = { ...line, sku: 'PLAIN', tiers: [{ from: '0', price: '2' }] }
  const [a, b] = [draws('a', 4), draws('b', 12)]
  it('are made of lines whose price depends on how much all draw', () => {
    const pools = poolLines([a, draws('p', 1, plain), b], false, new Map())
    expect([...pools.keys()]).toEqual([lineKey(a)])
    expect(pools.get(lineKey(a))!.drawn.map(d => d.id)).toEqual(['a', 'b'])
    const elsewhere = { ...draws('x', 1), provider: 'Q' }
    expect([...poolLines([a, elsewhere], false, new Map()).keys()]).toHaveLength(2)
  })
  it('stay the very same while they hold the same, in whatever order', () => {
    const pools = poolLines([a, b], false, new Map())
    const key = lineKey(a)
    const pool = pools.get(key)
    expect(poolLines([a, b], false, pools).get(key)).toBe(pool)
    expect(poolLines([b, a], false, pools).get(key)).toBe(pool)
    for (const other of [[a], [a, b, draws('c', 1)], [a, draws('b', 12)], [draws('a', 5), b]])
      expect(poolLines(other, false, pools).get(key)).not.toBe(pool)
    // the same rows on another version of the card
    const newer = { ...line }
    expect(
      poolLines(
        [
          { ...a, line: newer },
          { ...b, line: newer },
        ],
        false,
        pools,
      ).get(key)!.line,
    ).toBe(newer)
    const moved = new LinePool({ ...line }, [a, b], false)
    expect(poolLines([a, b], false, new Map([[key, moved]])).get(key)).not.toBe(moved)
  })
})
