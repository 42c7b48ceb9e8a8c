// A unit price is the whole cost by the whole quantity, in every row, column and total; figures worked out by hand.
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { scaled, scaledText } from '../../../core/money/scaled'
import { answer, answersPacked } from '../../../core/spend/answer'
import { unpackAnswer } from '../../../core/spend/packed'
import type { Question } from '../../../core/spend/question'
import { spendTable } from '../../../core/spend/table'
import { cubeOf, plainCharge, type PlainCharge } from '../../support/random-charges'

const all = { start: '2026-01-01', end: '2027-01-01', keep: {}, leaveOut: {} }
const question: Question = { measure: 'unitPrice', splitBy: ['ServiceName'], grain: null, ...all }
const charge = (day: string, amount: string, quantity: string | undefined, ServiceName = 'Servers', unit = 'Hour', currency = 'EUR') =>
  ({
    day,
    hour: 0,
    currency,
    amount,
    ...(quantity !== undefined && { quantity }),
    values: { ServiceName, PricingUnit: unit },
    tags: {},
  }) as PlainCharge
const spec = { measure: 'unitPrice' as const, splitBy: ['ServiceName'], companions: {}, columns: [], days: 90, currency: 'EUR per Hour' }
const threeMonths = [
  charge('2026-08-05', '615', '10'),
  charge('2026-09-05', '615', '10'),
  charge('2026-10-05', '615', '10'),
  // other units and currencies never mix with it
  charge('2026-10-05', '7', '100', 'Servers', 'GB'),
  charge('2026-10-05', '700', '10', 'Servers', 'Hour', 'USD'),
]

it('is 61.50 in each of three months and 61.50 over them', () => {
  const now = answer(cubeOf(threeMonths), { ...question, grain: 'month' })
  const table = spendTable(now, null, { ...spec, across: 'start', columns: ['share', 'perDay'] })
  expect(table.heads.map(head => head.column ?? head.value ?? head.id)).toEqual([
    'ServiceName',
    '2026-08-01',
    '2026-09-01',
    '2026-10-01',
    'amount',
  ])
  expect(table.rows.map(row => row.cells)).toEqual([['Servers', '61.5', '61.5', '61.5', '61.5']])
  expect(table.total.cells).toEqual([null, '61.5', '61.5', '61.5', '61.5'])
})

it('weighs by quantity, and a cost without quantity belongs to the price of the whole only', () => {
  const charges = [
    charge('2026-08-05', '10', '1'), // 10 an hour
    charge('2026-09-05', '20', '9'), // 2.22 an hour
    charge('2026-10-05', '-5', '0'), // a correction of the price: (10 + 20 − 5) / 10 = 2.5
    charge('2026-08-05', '40', '10', 'Disks'), // 4 an hour; both: (25 + 40) / 20 = 3.25
  ]
  const now = answer(cubeOf(charges), { ...question, grain: 'month' })
  expect(now.totals).toEqual([{ currency: 'EUR per Hour', amount: '3.25' }])
  const table = spendTable(now, null, { ...spec, across: 'start' })
  expect(table.rows.map(row => row.cells)).toEqual([
    ['Disks', '4', null, null, '4'],
    ['Servers', '10', '2.222222222222', null, '2.5'],
  ])
  // 50 / 11, 20 / 9, nothing used, 65 / 20
  expect(table.total.cells).toEqual([null, '4.545454545455', '2.222222222222', null, '3.25'])
})

it('is compared as a price: before, difference and change, and a price that is gone', () => {
  const now = answer(cubeOf([charge('2026-09-05', '30', '10'), charge('2026-09-06', '8', '2', 'Queues')]), question)
  const before = answer(cubeOf([charge('2026-08-05', '40', '10'), charge('2026-08-05', '6', '6', 'Disks')]), question)
  const table = spendTable(now, before, { ...spec, across: null, columns: ['before', 'difference', 'changeShare'] })
  expect(table.rows.map(row => row.cells)).toEqual([
    ['Queues', '4', null, null, null],
    ['Servers', '3', '4', '-1', '-0.25'],
    ['Disks', null, '1', null, null],
  ])
  // 38 / 12 = 3.1666…, before 46 / 16 = 2.875
  expect(table.total.cells).toEqual([null, '3.166666666667', '2.875', '0.291666666667', '0.101449'])
})

it('every cell of a table is the cost by the quantity of its charges, whatever runs across', () => {
  const priced = fc
    .tuple(plainCharge, fc.constantFrom('0', '1', '2.5', '40'), fc.constantFrom('Hour', 'GB'))
    .map(([plain, quantity, PricingUnit]): PlainCharge => ({ ...plain, quantity, values: { ...plain.values, PricingUnit } }))
  fc.assert(
    fc.property(fc.array(priced, { maxLength: 40 }), fc.constantFrom('start', 'RegionId'), (charges, across) => {
      const asked = { ...question, ...(across === 'start' ? { grain: 'month' as const } : { splitBy: ['ServiceName', across] }) }
      const table = spendTable(unpackAnswer(answersPacked(cubeOf(charges), [asked])[0]!), null, { ...spec, across })
      const price = (list: PlainCharge[]) => {
        const own = list.filter(c => c.currency === 'EUR' && c.values.PricingUnit === 'Hour')
        const sum = (texts: string[]) => texts.reduce((n, text) => n + scaled(text), 0n)
        const [cost, quantity] = [sum(own.map(c => c.amount)), sum(own.map(c => c.quantity!))]
        return quantity === 0n ? null : Number(scaledText(cost)) / Number(scaledText(quantity))
      }
      const acrossOf = (c: PlainCharge) => (across === 'start' ? `${c.day.slice(0, 7)}-01` : (c.values[across] ?? null))
      const near = (text: string | null, wanted: number | null) =>
        wanted === null ? expect(text).toBeNull() : expect(Math.abs(Number(text) - wanted)).toBeLessThan(1e-6 * (1 + Math.abs(wanted)))
      for (const row of [...table.rows, table.total]) {
        const own = row === table.total ? charges : charges.filter(c => (c.values.ServiceName ?? null) === row.values[0])
        table.heads.forEach((head, i) => {
          if (head.kind === 'text') return
          near(row.cells[i]!, price(head.value === undefined ? own : own.filter(c => acrossOf(c) === head.value)))
        })
      }
    }),
    { numRuns: 150 },
  )
})
