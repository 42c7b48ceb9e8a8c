// What the columns of a sheet come to, by part and in all, worked out by hand.
import { expect, it } from 'vitest'
import { asScenario } from '../../../core/estimate/scenarios/layer'
import { compareScenarios } from '../../../core/estimate/scenarios/compare'
import { columnTotal, partSums, rowDifference, rowFigure, type SheetPrices } from '../../../core/estimate/sheet/column-sums'
import { figureColumns } from '../../../core/estimate/sheet/columns'
import { priceScenarios } from '../../../core/estimate/pricing/price-estimate'
import { costOfEach, lineOfRow } from '../../../core/estimate/pricing/facts-of-row'
import type { Estimate } from '../../../core/estimate/estimate'
import { evaluate } from '../../../core/working/working'
import { testEstimate, testPrices } from '../../support/test-card'

const own = testEstimate([
  ['disk', { class: 'plain', storageGb: '100' }],
  ['server', { size: 'plain', pays: 'on-demand' }],
  ['disk', { class: 'plain', storageGb: '500' }],
  ['disk', { class: 'none such', storageGb: '500' }],
])
/** Disks of 8 and 40, one that cannot be priced, a server of 730 × 0.028 = 20.44. */
const estimate: Estimate = {
  ...own,
  taxPercent: '10',
  components: own.components.map((row, i) => ({ ...row, part: i === 1 ? 'web' : 'store' })),
}
const sheetOf = (of: Estimate): SheetPrices => {
  const priced = priceScenarios(of, testPrices)
  const differences = priced.slice(1).map(other => {
    return [other.scenario!, compareScenarios(of, testPrices, priced[0]!, other, 'monthly')] as const
  })
  return { priced, differences: new Map(differences) }
}

it('sums each part over the rows that are priced, and tells the total with what comes on top', () => {
  const prices = sheetOf(estimate)
  const columns = figureColumns(prices.priced, 'monthly')
  const at = columns.findIndex(column => column.figure === 'monthly')
  const sums = partSums(estimate.components, columns, prices)
  expect([...sums].map(([part, amounts]) => [part, amounts[at]])).toEqual([
    ['store', '48'],
    ['web', '20.44'],
  ])
  expect(columnTotal(columns[at]!, prices)).toEqual({ amount: '75.284', share: null }) // 68.44 × 1.1
  expect(rowFigure('c3', columns[at]!, prices)).toBeNull()
  expect(evaluate(rowFigure('c2', columns[at]!, prices)!).toFixed()).toBe('40')
  expect(partSums([], columns, prices).size).toBe(0)
})

it('beside a scenario: its own sums, its differences, and the total like for like', () => {
  const scenario = {
    ...asScenario({ whole: {} }, 's', 'larger'),
    rows: { c0: { storageGb: '250' }, c2: { class: 'none such' }, c1: { muted: 'yes' } },
  }
  const prices = sheetOf({ ...estimate, scenarios: [scenario] })
  const columns = figureColumns(prices.priced, 'monthly')
  expect(columns.map(column => [column.at, column.difference ?? false])).toEqual([
    [0, false],
    [1, false],
    [1, true],
  ])
  // c0 8 → 20, c1 muted 20.44 → 0, c2 cannot be priced there and is not compared
  expect([...partSums(estimate.components, columns, prices)]).toEqual([
    ['store', ['48', '20', '12']],
    ['web', ['20.44', '0', '-20.44']],
  ])
  expect(['c0', 'c1', 'c2', 'c3'].map(id => rowDifference(id, columns[2]!, prices))).toEqual(['12', '-20.44', null, null])
  // over c0 and c1: 28.44 → 20, with tax 31.284 → 22; the share is −9.284 / 31.284
  const total = columnTotal(columns[2]!, prices)
  expect(total.amount).toBe('-9.284')
  expect(Number(total.share)).toBeCloseTo(-0.29676512, 8)
  expect(columnTotal(columns[1]!, prices)).toEqual({ amount: '22', share: null })
  // of a column that nothing was compared for
  expect(columnTotal(columns[2]!, { ...prices, differences: new Map() })).toEqual({ amount: '0', share: null })
})

it('a row knows its line of the card, running or by its size, and what one of its things costs', () => {
  const { priced } = sheetOf(estimate)
  const row = (id: string) => priced[0]!.byId.get(id)!
  expect(lineOfRow(row('c1'))?.sku).toContain('server-hour')
  expect(lineOfRow(row('c0'))).toBe(testPrices.cards.get('Testcloud')!.prices.find(line => line.meter === 'disk-gb-month'))
  expect(lineOfRow(row('c3'))).toBeNull()
  expect(lineOfRow({ ...row('c0'), place: null })).toBeNull()
  expect(lineOfRow({ ...row('c0'), kind: null })).toBeNull()

  expect(costOfEach(row('c0'), 1)).toBeNull()
  const each = (count: string) => ({ ...row('c0').charges!, each: { label: 'user', count: { op: 'input', label: 'users', value: count } } })
  const counted = (count: string) => costOfEach({ ...row('c0'), charges: each(count) as never }, 1)
  expect(counted('32')).toEqual({ label: 'user', cost: '0.25' })
  expect(counted('0')).toEqual({ label: 'user', cost: null })
  expect(costOfEach({ ...row('c3'), charges: each('32') as never }, 1)).toBeNull()
})
