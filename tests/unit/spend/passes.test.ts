// How often the charges are passed over for an answer, and for what: that is time, and for conditions on a cost it is meaning too.
import { expect, it } from 'vitest'
import { answersPacked, sumsFor } from '../../../core/spend/answer'
import { groupCharges } from '../../../core/spend/group'
import { unpackAnswer } from '../../../core/spend/packed'
import type { Question } from '../../../core/spend/question'
import { cubeOf, type PlainCharge, oneCharge as one } from '../../support/random-charges'

const all: Question = {
  measure: 'billedCost',
  splitBy: ['ResourceId'],
  grain: null,
  start: '2026-09-01',
  end: '2026-10-01',
  keep: {},
  leaveOut: {},
}

/** Answers questions about charges, and tells for which of them these were passed over. */
function passes(charges: readonly PlainCharge[], ...asked: Partial<Question>[]) {
  const cube = cubeOf([...charges])
  const made: Question[] = []
  const packed = answersPacked(
    cube,
    asked.map(more => ({ ...all, ...more })),
    question => {
      made.push(question)
      return groupCharges(cube, { ...question, ...sumsFor(question.measure) })
    },
  )
  return { made, answers: packed.map(unpackAnswer) }
}
/** So many resources on two days in one of two services; the last ones cost most. */
const resources = (count: number) =>
  Array.from({ length: count }, (_, i) =>
    one({
      day: i % 2 ? '2026-09-03' : '2026-09-20',
      amount: String(i + 1),
      values: { ResourceId: `r${i}`, ServiceName: i % 4 < 2 ? 'a' : 'b' },
    }),
  )
const byDay = { grain: 'day', limit: 2 } as const

it('of more than 2000 values the largest are found first, then only their charges are looked at by time', () => {
  // 2000 values and none are 2001
  const { made, answers } = passes(resources(2000), byDay)
  expect(made.map(({ grain, keep }) => ({ grain, keep }))).toEqual([
    { grain: null, keep: {} },
    { grain: 'day', keep: { ResourceId: ['r1998', 'r1999'] } },
  ])
  expect(answers).toEqual([
    {
      totals: [{ currency: 'EUR', amount: '2001000' }],
      rows: [
        { values: { ResourceId: 'r1999' }, start: '2026-09-03', currency: 'EUR', amount: '2000' },
        { values: { ResourceId: 'r1998' }, start: '2026-09-20', currency: 'EUR', amount: '1999' },
      ],
      rest: { count: 1998, amounts: [{ currency: 'EUR', amount: '1997001' }] },
    },
  ])
})

it('what is kept already stays kept while the largest are looked at, other dimensions too', () => {
  const { made } = passes(resources(2000), { ...byDay, keep: { ServiceName: ['a'], ResourceId: ['r0', 'r1', 'r2'] } })
  expect(made.map(({ keep }) => keep)).toEqual([
    { ServiceName: ['a'], ResourceId: ['r0', 'r1', 'r2'] },
    { ServiceName: ['a'], ResourceId: ['r0', 'r1'] },
  ])
})

it('values of several dimensions count together', () => {
  // 1000 values and none, by two services and none: 3003
  const { made } = passes(resources(1000), { ...byDay, splitBy: ['ServiceName', 'ResourceId'] })
  expect(made.map(({ grain }) => grain)).toEqual([null, 'day'])
})

it('one pass by time does for few values, without a limit, for prices, and for a condition on a cost', () => {
  const above = [{ dimension: 'ServiceName', keep: true, above: '10' }]
  expect(passes(resources(1999), byDay).made.map(({ grain }) => grain)).toEqual(['day'])
  expect(passes(resources(2000), { grain: 'day' }).made.map(({ grain }) => grain)).toEqual(['day'])
  expect(passes(resources(2000), { ...byDay, measure: 'unitPrice' }).made.map(({ grain }) => grain)).toEqual(['day'])
  expect(passes(resources(2000), { ...byDay, conditions: above }).made.map(({ grain }) => grain)).toEqual(['day'])
  expect(passes(resources(2000), { limit: 2 }).made.map(({ grain }) => grain)).toEqual([null])
  const contains = [{ dimension: 'ServiceName', keep: true, contains: 'a' }]
  expect(passes(resources(2000), { ...byDay, conditions: contains }).made.map(({ grain }) => grain)).toEqual([null, 'day'])
  expect(passes(resources(2000), { ...byDay, conditions: [...contains, ...above] }).made.map(({ grain }) => grain)).toEqual(['day'])
})

it('where the limit leaves nothing over, the rest says nothing', () => {
  const { answers } = passes(resources(2000), { ...byDay, limit: 2000 })
  expect(answers[0]!.rest).toBeNull()
  expect(answers[0]!.totals).toEqual([{ currency: 'EUR', amount: '2001000' }])
})

it('an answer is added up from a finer one while its groups are a quarter of the charges or fewer', () => {
  const questions = [{ splitBy: ['ResourceId', 'ServiceName'] }, { splitBy: ['ServiceName'] }]
  const charges = (count: number) =>
    Array.from({ length: count }, (_, i) => one({ values: { ResourceId: `r${i % 5}`, ServiceName: `s${i % 5}` } }))
  for (const [count, times] of [
    [20, 1],
    [19, 2],
  ] as const) {
    const { made, answers } = passes(charges(count), ...questions)
    expect(made).toHaveLength(times)
    expect(answers[1]!.rows.map(({ amount }) => Number(amount)).reduce((sum, amount) => sum + amount)).toBe(count)
    expect(answers[1]!.rows).toHaveLength(5)
  }
})

it('questions of few values, none of which splits further than another, share one pass', () => {
  const charges = Array.from({ length: 200 }, (_, i) =>
    one({ values: { ServiceName: `s${i % 3}`, RegionId: `g${i % 2}`, ResourceId: `r${i}` } }),
  )
  const { made, answers } = passes(charges, { splitBy: ['ServiceName'] }, { splitBy: ['RegionId'] })
  expect(made.map(({ splitBy }) => splitBy)).toEqual([['ServiceName', 'RegionId']])
  expect(answers.map(({ rows }) => rows.map(({ amount }) => amount))).toEqual([
    ['67', '67', '66'],
    ['100', '100'],
  ])
  // a question with 201 values by one with 4 and one with 3 would be more than are worth it
  const many = passes(charges, { splitBy: ['ServiceName'] }, { splitBy: ['RegionId'] }, { splitBy: ['ResourceId'] })
  expect(many.made.map(({ splitBy }) => splitBy)).toContainEqual(['ResourceId'])
  // what one splits further than another is its root: the coarser is no part of a joint pass
  const nested = passes(charges, { splitBy: ['ServiceName', 'RegionId'] }, { splitBy: ['ServiceName'] })
  expect(nested.made.map(({ splitBy }) => splitBy)).toEqual([['ServiceName', 'RegionId']])
})
