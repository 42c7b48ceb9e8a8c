// Figures drawn from the codes of an answer are those that its rows add up to, whichever way the rows are read.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Decimal } from '../../../core/money/decimal'
import { codedAnswer, columnsOf, namesBy, valuesIn } from '../../../core/spend/answer-columns'
import { figureText } from '../../../core/spend/figure'
import { amountsByStart, figureGroups } from '../../../core/spend/figure-groups'
import { packAnswer } from '../../../core/spend/packed'
import type { Answer, AnswerRow } from '../../../core/spend/question'

const row = (values: AnswerRow['values'], amount: string, more: Partial<AnswerRow> = {}): AnswerRow => {
  return { values, amount, start: null, currency: 'EUR', ...more }
}
const answerOf = (rows: AnswerRow[], more: Partial<Answer> = {}): Answer => ({ totals: [], rest: null, rows, ...more })
const coded = (answer: Answer, splitBy: string[]) => codedAnswer(packAnswer(answer, splitBy))
const texts = (groups: ReturnType<typeof figureGroups>) => [...groups].map(([id, { figure }]) => [id, figureText(figure)])

describe('figures by values', () => {
  const rows = [
    row({ a: 'x', b: null }, '1.5'),
    row({ a: 'x', b: 'constructor' }, '2'),
    row({ a: null, b: 'y' }, '-4'),
    row({ a: 'x', b: null }, '8', { currency: 'USD' }),
    row({ a: 'x', b: 'y' }, '0.000000000000001'),
  ]
  it.each([
    ['as objects', answerOf(rows)],
    ['by codes', coded(answerOf(rows), ['a', 'b'])],
  ])('%s: by one, by both, by none, in the order in which they come', (_, answer) => {
    expect(texts(figureGroups(answer, ['a'], 'EUR'))).toEqual([
      ['["x"]', '3.500000000000001'],
      ['[null]', '-4'],
    ])
    expect(texts(figureGroups(answer, ['b', 'a'], 'EUR'))).toEqual([
      ['[null,"x"]', '1.5'],
      ['["constructor","x"]', '2'],
      ['["y",null]', '-4'],
      ['["y","x"]', '0.000000000000001'],
    ])
    expect(texts(figureGroups(answer, [], 'EUR'))).toEqual([['[]', '-0.499999999999999']])
    expect(texts(figureGroups(answer, ['a'], 'USD'))).toEqual([['["x"]', '8']])
    expect(texts(figureGroups(answer, ['a'], 'NOK'))).toEqual([])
    // what was not asked for no row has
    expect(texts(figureGroups(answer, ['c'], 'USD'))).toEqual([['[null]', '8']])
  })
  it('know what their first row has in another column', () => {
    const answer = coded(answerOf([row({ id: '1', name: 'new' }, '1'), row({ id: '1', name: 'old' }, '1')]), ['id', 'name'])
    const [group] = [...figureGroups(answer, ['id'], 'EUR').values()]
    expect([group!.value('name'), group!.value('other'), group!.values]).toEqual(['new', null, ['1']])
    expect([...namesBy(answer, 'id', 'name')]).toEqual([['1', 'old']])
    expect([valuesIn(answer, 'name'), valuesIn(answer, 'other')]).toEqual([['new', 'old'], []])
  })
  it('of unit prices add cost and quantity, and the cost of what has no quantity', () => {
    const priced = answerOf([row({ s: 'a' }, '2', { cost: '10', quantity: '5' }), row({ s: 'a' }, '1', { cost: '3', quantity: '3' })], {
      unpriced: [row({ s: 'a' }, '3'), row({ s: 'b' }, '9')],
    })
    // 16 for 8; nothing of b was used
    for (const answer of [priced, coded(priced, ['s'])])
      expect(texts(figureGroups(answer, ['s'], 'EUR'))).toEqual([
        ['["a"]', '2'],
        ['["b"]', null],
      ])
  })
  it('are found once for an answer: the same come again', () => {
    const answer = answerOf(rows)
    expect(figureGroups(answer, ['a'], 'EUR')).toBe(figureGroups(answer, ['a'], 'EUR'))
    expect(figureGroups(answer, ['a'], 'EUR')).not.toBe(figureGroups(answer, ['a'], 'USD'))
    expect(figureGroups(answer, ['a', 'b'], 'EUR')).not.toBe(figureGroups(answer, ['b', 'a'], 'EUR'))
  })
  it('rows as objects are made once, when they are asked for, and are those that came', () => {
    const answer = coded(answerOf(rows), ['a', 'b'])
    expect(answer.rows).toEqual(rows)
    expect(answer.rows).toBe(answer.rows)
    expect(columnsOf(answer)).toHaveLength(1)
  })
})

const value = fc.option(fc.constantFrom('', 'a', 'b', '__proto__', '1'), { nil: null })
const someRows = fc.array(
  fc.record({
    values: fc.record({ x: value, y: value, z: value }),
    start: fc.constantFrom('2026-10-01', '2026-10-02', '2026-10-03'),
    currency: fc.constantFrom('EUR', 'USD'),
    amount: fc.constantFrom('0', '-1.5', '0.000000000000001', '999999999999999'),
  }) as fc.Arbitrary<AnswerRow>,
  { maxLength: 60 },
)

it('by any dimensions in any order they are what one adds up row by row', () => {
  fc.assert(
    fc.property(someRows, fc.shuffledSubarray(['x', 'y', 'z']), (rows, dimensions) => {
      const byHand = new Map<string, Decimal>()
      for (const { values, currency, amount } of rows) {
        if (currency !== 'EUR') continue
        const id = JSON.stringify(dimensions.map(name => values[name]))
        byHand.set(id, (byHand.get(id) ?? new Decimal(0)).plus(amount))
      }
      const expected = [...byHand].map(([id, sum]) => [id, sum.toFixed()])
      for (const answer of [answerOf(rows), coded(answerOf(rows), ['z', 'x', 'y'])])
        expect(texts(figureGroups(answer, dimensions, 'EUR'))).toEqual(expected)
    }),
  )
})

it('amounts at their starts are those of the rows, over several answers one after the other', () => {
  fc.assert(
    fc.property(someRows, someRows, (first, second) => {
      const starts = ['2026-09-30', '2026-10-01', '2026-10-03']
      const byHand = new Map<string, string[]>()
      for (const { values, start, currency, amount } of [...first, ...second]) {
        if (currency !== 'USD') continue
        const id = JSON.stringify([values.y, values.x])
        const own = byHand.get(id) ?? starts.map(() => '0')
        byHand.set(id, own)
        if (starts.includes(start!)) own[starts.indexOf(start!)] = amount
      }
      const answers = [answerOf(first), answerOf(second)]
      for (const read of [answers, answers.map(answer => coded(answer, ['x', 'y']))])
        expect([...amountsByStart(read, ['y', 'x'], starts, 'USD', '0')]).toEqual([...byHand])
    }),
  )
})
