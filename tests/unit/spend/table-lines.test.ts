// Lines of a table below the sums of what begins with the same values.
import { expect, it } from 'vitest'
import { changeShare, shareOf } from '../../../core/money/share'
import { spendTable, type TableColumn } from '../../../core/spend/table'
import { tableLines, type TableLook } from '../../../core/spend/table-lines'
import type { Answer } from '../../../core/spend/question'

const splitBy = ['ServiceName', 'RegionId']
const row = (ServiceName: string | null, RegionId: string | null, amount: string) => ({
  ...{ values: { ServiceName, RegionId }, start: null, currency: 'EUR', amount },
})
const answer = (rows: ReturnType<typeof row>[]): Answer => ({ totals: [], rest: null, rows })
const now = answer([
  row('a', 'x', '10'),
  row('b', 'x', '30'),
  row('a', 'y', '25'),
  row(null, 'x', '-2'),
  row('b', null, '0.000000000000001'),
])
const before = answer([row('a', 'x', '20'), row('a', 'z', '50')])
const columns: TableColumn[] = ['share', 'before', 'difference', 'changeShare']
const table = (measure: 'billedCost' | 'unitPrice' = 'billedCost') =>
  spendTable(now, before, { measure, splitBy, companions: {}, across: null, currency: 'EUR', columns, days: 1 })
const look = (more: Partial<TableLook> = {}): TableLook => ({
  ...{ splitBy, order: { column: 'amount', down: true }, closed: new Set<string>(), adds: true },
  nameOf: (one, dimension) => one.values[dimension] ?? 'none',
  ...more,
})
const shape = (more: Partial<TableLook> = {}) =>
  tableLines(table(), look(more)).map(({ level, open, count, row: { values, amount } }) => [
    `${'  '.repeat(level)}${String(values.at(-1))}`,
    amount,
    open === null ? '' : open ? `open ${count}` : `closed ${count}`,
  ])

it('sums stand above their rows, largest first in every level; what is gone since has its row', () => {
  expect(shape()).toEqual([
    ['a', '35', 'open 3'],
    ['  y', '25', ''],
    ['  x', '10', ''],
    ['  z', '0', ''],
    ['b', '30.000000000000001', 'open 2'],
    ['  x', '30', ''],
    ['  null', '0.000000000000001', ''],
    ['null', '-2', 'open 1'],
    ['  x', '-2', ''],
  ])
})

it('a sum’s columns add, but for its share and its change, which are those of the sums', () => {
  const cells = tableLines(table(), look())[0]!.row
  const total = table().total.cells
  // 35 of 63.000000000000001 (the shares of its rows, 0.396825 and 0.158730, are a millionth less)
  // before 70; −35; down by half, where x fell by half and z by all
  expect(cells.cells).toEqual(['a', null, '35', '0.555556', '70', '-35', '-0.5'])
  expect(total.slice(2, 3)).toEqual(['63.000000000000001'])
  expect(cells.wasThere).toBe(true)
  const isNew = tableLines(table(), look()).find(({ row: { values } }) => values.length === 1 && values[0] === 'b')!.row
  // nothing before: no change can be told
  expect([isNew.cells.at(-1), isNew.wasThere]).toEqual([null, false])
})

it('a closed sum hides its rows and still counts them', () => {
  expect(shape({ closed: new Set(['["a"]']) }).slice(0, 2)).toEqual([
    ['a', '35', 'closed 3'],
    ['b', '30.000000000000001', 'open 2'],
  ])
})

it('lines turn round, go by another column, or by names', () => {
  const heads = (more: Partial<TableLook>) => shape(more).flatMap(([name, , open]) => (open ? [name] : []))
  expect(heads({ order: { column: 'amount', down: false } })).toEqual(['null', 'b', 'a'])
  expect(heads({ order: { column: 'before', down: true } })[0]).toBe('a')
  expect(heads({ order: { column: 'ServiceName', down: false } })).toEqual(['a', 'b', 'null'])
  expect(heads({ order: { column: 'ServiceName', down: true } })).toEqual(['null', 'b', 'a'])
  expect(
    shape({ order: { column: 'RegionId', down: true } })
      .slice(0, 4)
      .map(([name]) => name),
  ).toEqual(['a', '  z', '  y', '  x'])
})

it('sums stand within sums; where nothing before is known, none of them has a change', () => {
  const deep = (ServiceName: string, RegionId: string, SubAccountName: string, amount: string) => ({
    ...{ values: { ServiceName, RegionId, SubAccountName }, start: null, currency: 'EUR', amount },
  })
  const three = ['ServiceName', 'RegionId', 'SubAccountName']
  const own = spendTable(
    answer([deep('a', 'x', '1', '1'), deep('a', 'x', '2', '2'), deep('a', 'y', '1', '4'), deep('b', 'x', '1', '8')]),
    null,
    {
      ...{
        measure: 'billedCost',
        splitBy: three,
        companions: {},
        across: null,
        currency: 'EUR',
        columns: ['before', 'changeShare'],
        days: 1,
      },
    },
  )
  const lines = tableLines(own, look({ splitBy: three }))
  expect(lines.map(({ level, row: { values, amount } }) => `${level} ${values.join('/')} ${amount}`)).toEqual([
    ...['0 b 8', '1 b/x 8', '2 b/x/1 8', '0 a 7', '1 a/y 4', '2 a/y/1 4', '1 a/x 3', '2 a/x/2 2', '2 a/x/1 1'],
  ])
  expect(lines.map(({ row: { cells } }) => cells.slice(4))).toEqual(lines.map(() => [null, null]))
  expect(new Set(lines.map(({ key }) => key)).size).toBe(lines.length)
})

it('prices have no sums: every row stands by itself', () => {
  const lines = tableLines(table('unitPrice'), look({ adds: false }))
  expect(lines.map(({ level, open }) => [level, open])).toEqual(lines.map(() => [0, null]))
  expect(lines[0]!.row.values).toHaveLength(2)
  expect(tableLines(table(), look({ splitBy: ['ServiceName'] }))[0]!.open).toBeNull()
})

it('shares are of the size of what was, rounded half away from zero; of nothing there is none', () => {
  expect([changeShare('3', '2'), changeShare('-3', '-2'), changeShare('1', '-1'), changeShare('1', '0')]).toEqual([0.5, -0.5, 2, null])
  expect([shareOf(2n, 3n), shareOf(-2n, 3n), shareOf(1n, 0n), shareOf(0n, 5n)]).toEqual(['0.666667', '-0.666667', null, '0'])
})
