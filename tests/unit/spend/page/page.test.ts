// What a page of spend asks and what it makes of the answers, by hand.
import { expect, it } from 'vitest'
import { amountPerDay } from '../../../../core/spend/day-groups'
import { amountsByStart } from '../../../../core/spend/figure-groups'
import { Hues } from '../../../../core/spend/page/hues'
import { mapPage, pageQuestions, type SourceReach } from '../../../../core/spend/page/questions'
import { choicesOf, rowsOf, type SpendRow } from '../../../../core/spend/page/rows'
import { chartSeries } from '../../../../core/spend/page/series'
import { stepColumn, stepsDone } from '../../../../core/spend/page/steps'
import type { Answer, AnswerRow } from '../../../../core/spend/question'
import type { Sentence } from '../../../../core/spend/sentence'

const sentence = (more: Partial<Sentence> = {}): Sentence => ({
  ...{ measure: 'effectiveCost', splitBy: ['ServiceName'], grain: 'day', period: 'this-month', against: 'before' },
  ...{ keep: {}, leaveOut: {}, conditions: [], currency: null, reportCurrency: null, chart: 'columns', largest: 2 },
  ...{
    steps: [],
    stepOrder: ['SubAccountName', 'ServiceName'],
    stepQuantity: [],
    across: null,
    columns: [],
    show: 'table',
    basis: 'charge',
  },
  ...more,
})
// «far» has a day more than «near», and a part of the next; something of it begins in December
const days = { firstDay: '2026-09-01', lastDay: '2026-11-10', sources: { near: '2026-11-09', far: '2026-11-10' } }
const sources: SourceReach[] = [
  { source: 'near', lastDay: '2026-11-09', partialDay: null, laterFrom: null },
  { source: 'far', lastDay: '2026-11-10', partialDay: '2026-11-11', laterFrom: '2026-12-01' },
]
const row = (amount: string, values: AnswerRow['values'], more: Partial<AnswerRow> = {}): AnswerRow => ({
  ...{ values, start: null, currency: 'EUR', amount },
  ...more,
})
const answerOf = (rows: AnswerRow[], more: Partial<Answer> = {}): Answer => ({ totals: [], rest: null, rows, ...more })
const plain = (_: string, value: string | null, name: string | null | undefined) => name ?? value ?? 'none'

it('a rolling period asks for the part of a day after it, for what begins later, and for sources that reach unequally far by themselves', () => {
  const { questions, period, dayGroups, part, laterFrom } = pageQuestions(sentence(), days, sources, '2026-11-11')
  expect(period).toEqual({ start: '2026-11-01', end: '2026-11-11' })
  expect(part).toEqual({ start: '2026-11-11', end: '2026-11-12', ends: undefined })
  expect(questions.part).toMatchObject({ start: '2026-11-11', end: '2026-11-12', splitBy: [], grain: null })
  expect(questions.part!.ends).toBeUndefined()
  expect(questions.partSeries).toMatchObject({ start: '2026-11-11', splitBy: ['ServiceName'], grain: 'day' })
  expect(laterFrom).toBe('2026-12-01')
  expect(questions.later).toMatchObject({ start: '2026-11-09', begins: { near: '2026-11-10', far: '2026-11-12' } })
  expect(dayGroups.map(group => group.days)).toEqual([9, 10])
  expect(questions.days.map(({ ends }) => ends)).toEqual([
    { near: '2026-11-10', far: '2026-11-01' },
    { near: '2026-11-01', far: '2026-11-11' },
  ])
  expect(questions.now).toMatchObject({ start: '2026-11-01', end: '2026-11-11', ends: { near: '2026-11-10' }, splitBy: ['ServiceName'] })
  expect(questions.before).toMatchObject({ start: '2026-10-01', end: '2026-10-11', ends: { near: '2026-10-10' } })
  // eleven days are no months of a bill
  expect([questions.otherBasis, questions.elsewhere, questions.otherElsewhere]).toEqual([null, null, null])
})

it('a fixed period has no part of a day; whole months are asked by the other periods too', () => {
  const { questions, part } = pageQuestions(sentence({ period: { start: '2026-10-01', end: '2026-11-01' } }), days, sources, '2026-11-01')
  expect([part, questions.part, questions.partLine, questions.partSeries]).toEqual([null, null, null, null])
  expect(questions.days).toEqual([])
  expect([questions.otherBasis!.basis, questions.elsewhere!.basis, questions.elsewhere!.elsewhere]).toEqual(['billing', undefined, true])
  expect([questions.otherElsewhere!.basis, questions.otherElsewhere!.splitBy]).toEqual(['billing', ['ChargeDescription', 'ChargeCategory']])
  const billed = pageQuestions(
    sentence({ period: { start: '2026-10-01', end: '2026-11-01' }, basis: 'billing' }),
    days,
    sources,
    null,
  ).questions
  expect([billed.now.basis, billed.otherBasis!.basis, billed.otherElsewhere!.basis]).toEqual(['billing', undefined, undefined])
  expect(pageQuestions(sentence(), { ...days, sources: { near: '2026-11-10' } }, [], null).questions.later).toBeNull()
})

it('names come with ids, limits go by what is drawn, and a long period has small lines over coarser steps', () => {
  const asked = (more: Partial<Sentence>) => pageQuestions(sentence(more), days, sources, null).questions
  const long = asked({ splitBy: ['ResourceId'], period: 'all' })
  expect(long.now.splitBy).toEqual(['ResourceId', 'ResourceName'])
  // 71 days are more than 62 points: weeks
  expect([long.series.limit, long.lines!.grain, long.lines!.limit]).toEqual([3, 'week', 60])
  expect(asked({ splitBy: [], period: 'all' }).lines).toBeNull()
  expect(asked({ period: 'all', across: 'start' }).lines).toBeNull()
  expect([asked({}).series.limit, asked({}).lines, asked({ chart: 'multiples', period: 'all' }).series.limit]).toEqual([60, null, 12])
  expect(asked({ across: 'start' }).across).toMatchObject({ splitBy: ['ServiceName'], grain: 'day' })
  expect(asked({ across: 'RegionId' }).across).toMatchObject({ splitBy: ['ServiceName', 'RegionId'], grain: null })
  expect(asked({ across: 'ServiceName' }).across!.splitBy).toEqual(['ServiceName'])
  expect(asked({}).across).toBeNull()
  const inOne = asked({ reportCurrency: 'EUR' })
  expect([inOne.now.reportCurrency, 'reportCurrency' in asked({}).now]).toEqual(['EUR', false])
})

it('kinds of charges are asked as a cost where no cost is looked at; a price has no sum of parts', () => {
  const measure = (measure: Sentence['measure']) => pageQuestions(sentence({ measure }), days, sources, null).questions
  expect(
    ['billedCost', 'savedAgainstList', 'unitPrice', 'pricingQuantity'].map(m => measure(m as 'billedCost').chargeKinds.measure),
  ).toEqual([...['billedCost', 'savedAgainstList', 'effectiveCost', 'effectiveCost']])
  expect([measure('unitPrice').days.length, measure('pricingQuantity').days.length]).toEqual([0, 2])
})

it('every place of a page is gone through in the same order, whatever is in it', () => {
  const { questions } = pageQuestions(sentence({ period: 'all', across: 'start', steps: [] }), days, sources, '2026-11-11')
  const first: unknown[] = []
  mapPage(questions, question => first.push(question))
  let place = 0
  const numbered = mapPage(questions, () => place++)
  mapPage(numbered, number => expect(first[number]).toBeDefined())
  expect([first[numbered.now], first[numbered.chargeKinds], first[numbered.steps[0]!.before], first[numbered.days[1]!]]).toEqual([
    ...[questions.now, questions.chargeKinds, questions.steps[0]!.before, questions.days[1]],
  ])
  expect(place).toBe(first.length)
})

it('rows are in one currency; ids under two names are one row; a price of nothing used has none', () => {
  const now = answerOf([
    row('5', { ResourceId: 'r1', ResourceName: 'web' }),
    row('3', { ResourceId: 'r1', ResourceName: 'web-old' }),
    row('7', { ResourceId: 'r1', ResourceName: 'web' }, { currency: 'USD' }),
    row('1', { ResourceId: null, ResourceName: null }),
  ])
  const before = answerOf([row('-2', { ResourceId: 'r1', ResourceName: 'web' })])
  expect(rowsOf(now, before, ['ResourceId'], 'EUR', plain)).toEqual([
    { id: '["r1"]', values: ['r1'], label: 'web', amount: '8', before: '-2' },
    { id: '[null]', values: [null], label: 'none', amount: '1', before: null },
  ])
  expect(rowsOf(answerOf([row('4', {})]), null, [], 'EUR', plain)).toEqual([
    { id: '[]', values: [], label: 'everything', amount: '4', before: null },
  ])
  const prices = answerOf([row('2', { SkuId: 'a' }, { currency: 'EUR per GB', cost: '10', quantity: '5' })], {
    unpriced: [row('6', { SkuId: 'a' }, { currency: 'EUR per GB' }), row('9', { SkuId: 'b' }, { currency: 'EUR per GB' })],
  })
  // 16 for 5 GB; of b nothing was used
  expect(rowsOf(prices, null, ['SkuId'], 'EUR per GB', plain).map(({ label, amount }) => [label, amount])).toEqual([['a', '3.2']])
  expect(rowsOf(now, null, ['ResourceId', 'ServiceName'], 'USD', plain)[0]!.label).toBe('web · none')
})

it('values that cost only in other currencies can be chosen too, once', () => {
  const answer = answerOf(
    [
      row('5', { RegionId: 'a' }),
      row('7', { RegionId: 'a' }, { currency: 'USD' }),
      row('9', { RegionId: 'constructor' }, { currency: 'USD' }),
      row('2', { RegionId: 'constructor' }, { currency: 'CHF' }),
    ],
    { totals: ['CHF', 'EUR', 'USD'].map(currency => ({ currency, amount: '1' })) },
  )
  expect(choicesOf(answer, 'RegionId', 'EUR', plain).map(({ label, amount }) => [label, amount])).toEqual([
    ['a', '5'],
    ['constructor', '0'],
  ])
})

it('amounts stand at their starts, nought or nothing where there are none', () => {
  const answer = answerOf([
    row('1', { ServiceName: 'a' }, { start: '2026-11-02' }),
    row('2', { ServiceName: 'a' }, { start: '2026-11-03' }),
    row('4', { ServiceName: 'a' }, { start: '2026-11-04' }),
    row('8', { ServiceName: 'a' }, { start: '2026-11-02', currency: 'USD' }),
  ])
  const starts = ['2026-11-01', '2026-11-02', '2026-11-03']
  expect([...amountsByStart([answer], ['ServiceName'], starts, 'EUR', '0')]).toEqual([['["a"]', ['0', '1', '2']]])
  expect([...amountsByStart([answer], ['ServiceName'], starts, 'EUR', null)]).toEqual([['["a"]', [null, '1', '2']]])
  expect([...amountsByStart([answer], [], starts, 'EUR', '0')]).toEqual([])
})

const spendRow = (value: string | null, amount: string): SpendRow => ({
  ...{ id: JSON.stringify([value]), values: [value], label: value ?? 'none', amount, before: null },
})
const chart = (rows: SpendRow[], more: Partial<Sentence> = {}, hues = new Hues()) =>
  chartSeries(
    sentence(more),
    {
      rows,
      whole: answerOf([row('10', {}, { start: 's1' }), row('20.5', {}, { start: 's2' }), row('99', {}, { start: 's1', currency: 'USD' })]),
      courses: new Map(rows.filter(({ amount }) => amount !== '0').map(({ id, amount }) => [id, [amount, '1']])),
      starts: ['s1', 's2'],
      ...{ currency: 'EUR', total: '30.5' },
    },
    hues,
    count => `${count} more`,
  )

it('the largest in size are drawn, credits too, and the rest is what the whole has more', () => {
  const rows = [spendRow('a', '6'), spendRow('b', '2'), spendRow('c', '-7'), spendRow(null, '1')]
  expect(chart(rows).map(({ id, label, hue, isNone, amounts, total }) => [id, label, hue, isNone, amounts, total])).toEqual([
    ['["c"]', 'c', 0, false, ['-7', '1'], '-7'],
    ['["a"]', 'a', 1, false, ['6', '1'], '6'],
    // 10 less −7 and 6; 20.5 less 1 and 1
    ['rest', '2 more', null, false, ['11', '18.5'], '29.5'],
  ])
  // one more is shown where it alone would be the rest; what has no value has no hue
  const three = chart([spendRow('a', '6'), spendRow(null, '5'), spendRow('b', '2')])
  expect(three.map(({ label, hue, isNone }) => [label, hue, isNone])).toEqual([
    ['a', 0, false],
    ['none', null, true],
    ['b', 1, false],
  ])
  expect(chart([], { splitBy: [] })).toEqual([
    { id: 'all', label: 'everything', values: null, hue: 0, isNone: false, amounts: ['10', '20.5'], total: '30.5' },
  ])
  // prices do not add: nothing is left of them, and where nothing was used there is none
  expect(chart(rows, { measure: 'unitPrice' }).map(({ id }) => id)).toEqual(['["c"]', '["a"]'])
  expect(
    chart(
      Array.from({ length: 20 }, (_, i) => spendRow(`v${i}`, String(30 - i))),
      { chart: 'multiples' },
    ),
  ).toHaveLength(13)
  // what has no course, such as a row outside the limit, is in the rest
  expect(chart([spendRow('a', '6'), spendRow('b', '0')]).map(({ id }) => id)).toEqual(['["a"]', 'rest'])
})

it('a value keeps its hue while others come and go, and a free one goes to the next', () => {
  const hues = new Hues()
  const give = (...values: (string | null)[]) => {
    hues.give(
      ['d'],
      values.map(value => ({ values: [value] })),
    )
    return values.map(value => hues.of(['d'], { values: [value] }))
  }
  expect(give('a', null, 'b', 'c')).toEqual([0, null, 1, 2])
  expect(give('c', 'x', 'b')).toEqual([2, 0, 1])
  // both have had 0: the larger keeps it
  expect(give('a', 'x')).toEqual([0, 1])
  expect(give(...'pqrstuvwz')).toEqual([0, 1, 2, 3, 4, 5, 6, 7, null])
  // the same value of another dimension is another
  expect(hues.of(['e'], { values: ['p'] })).toBeNull()
})

it('each of the Steps keeps what is chosen to its left; quantities have their unit, and no currency', () => {
  const step = { dimension: 'SubAccountName', value: 'live' }
  const asked = pageQuestions(
    sentence({ steps: [step], stepQuantity: [1], reportCurrency: 'EUR', stepOrder: ['SubAccountName', 'ResourceId', 'SkuId'] }),
    ...[days, sources, null],
  )
  expect(asked.steps.map(({ dimension, of, counted }) => [dimension, of, counted])).toEqual([
    ['SubAccountName', null, false],
    ['ResourceId', step, true],
  ])
  const [first, second] = asked.steps
  expect([first!.now.keep, first!.now.reportCurrency, second!.now.keep]).toEqual([{}, 'EUR', { SubAccountName: ['live'] }])
  expect([second!.now.measure, 'reportCurrency' in second!.now, second!.now.splitBy]).toEqual([
    ...['pricingQuantity', false],
    ['ResourceId', 'ResourceName'],
  ])
  expect([second!.before.start, second!.before.keep]).toEqual(['2026-10-01', { SubAccountName: ['live'] }])
  const answer = answerOf(
    [
      row('9', { ResourceId: 'r1' }, { currency: 'GB' }),
      row('1', { ResourceId: 'r1' }, { currency: 'Hours' }),
      row('4', { ResourceId: 'r2' }, { currency: 'Hours' }),
    ],
    { totals: [{ currency: 'Hours', amount: '5' }] },
  )
  const { rows, unit, units, total } = stepColumn(second!, answer, answerOf([]), 'EUR', plain)
  expect([rows.map(({ label, amount }) => [label, amount]), unit, units, total]).toEqual([
    [
      ['r2', '4'],
      ['r1', '1'],
    ],
    ...['Hours', ['Hours', 'GB'], '5'],
  ])
  expect(stepColumn(first!, answer, answerOf([]), 'EUR', plain)).toMatchObject({ rows: [], unit: 'EUR', units: [], total: '0' })
  expect([stepsDone({ steps: [step], stepOrder: ['a'] }), stepsDone({ steps: [step], stepOrder: ['a', 'b'] })]).toEqual([true, false])
})

it('an amount a day is of each part over its own days', () => {
  const totals = (amount: string) => [{ currency: 'EUR', amount }]
  expect(
    amountPerDay(
      [
        { days: 9, totals: totals('18') },
        { days: 10, totals: totals('5') },
      ],
      'EUR',
    ),
  ).toBe('2.5')
  expect(
    amountPerDay(
      [
        { days: 0, totals: totals('18') },
        { days: 3, totals: [{ currency: 'USD', amount: '9' }] },
      ],
      'EUR',
    ),
  ).toBe('18')
})
