// Edits of the rows of a sheet: what each leaves, to the row, and what it does not touch.
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { newEstimate, type Estimate } from '../../../core/estimate/estimate'
import { priceEstimate, priceScenarios } from '../../../core/estimate/pricing/price-estimate'
import { figureColumns, inputColumns } from '../../../core/estimate/sheet/columns'
import * as edit from '../../../core/estimate/sheet/edit-rows'
import { explainedWorkings } from '../../../core/estimate/sheet/explained'
import { sheetItems } from '../../../core/estimate/sheet/items'
import { findNotices } from '../../../core/estimate/sheet/notices'
import { evaluate } from '../../../core/working/working'
import { brackwaterCard, larkfieldCard } from '../../../demo/rate-cards'
import { pricesOf, testCard, testEstimate, testPrices, testRows } from '../../support/test-card'

const disk = (count = '1'): [string, Record<string, string>] => ['disk', { class: 'plain', storageGb: '100', count }]
/** Rows a b in one part, c in another, d in the first again. */
const estimate = (): Estimate => {
  const own = testEstimate([disk('1'), disk('2'), disk('3'), disk('4')])
  const places: [string, string][] = [
    ['a', 'front'],
    ['b', 'front'],
    ['c', 'back'],
    ['d', 'front'],
  ]
  return { ...own, components: own.components.map((row, i) => ({ ...row, id: places[i]![0], part: places[i]![1] })) }
}
const shape = (e: Estimate) => e.components.map(row => `${row.part} ${row.id}`)
const scenario = { id: 's', name: 's', whole: {}, rows: { a: { count: '9', pays: 'on-demand' } }, conditions: [] }
const onCard = (scenarioId: string | null, e: Estimate) => ({
  ...{ scenario: scenarioId, priced: priceEstimate(e, testPrices), cards: testPrices.cards },
})

it('rows are added behind the last of their part, or at the end', () => {
  const row = (id: string, part: string) => ({ ...estimate().components[0]!, id, part })
  expect(shape(edit.insertRows([row('n', 'back'), row('m', 'front')])(estimate()))).toEqual([
    ...['front a', 'front b', 'back c', 'back n', 'front m', 'front d'],
  ])
  expect(shape(edit.insertRows([row('n', 'new')])(estimate())).at(-1)).toBe('new n')
  expect(edit.partsOf(estimate())).toEqual(['front', 'back'])
})

it('a row is moved, duplicated, removed, and nothing else', () => {
  expect(shape(edit.moveRowBefore('d', 'a')(estimate()))).toEqual(['front d', 'front a', 'front b', 'back c'])
  expect(shape(edit.moveRowBefore('a', 'c')(estimate()))).toEqual(['front b', 'back a', 'back c', 'front d'])
  expect(shape(edit.moveRowBefore('a', null)(estimate())).at(-1)).toBe('front a')
  expect(shape(edit.moveRowBefore('a', null, 'back')(estimate())).at(-1)).toBe('back a')
  expect(shape(edit.duplicateRow('b', 'n')(estimate()))).toEqual(['front a', 'front b', 'front n', 'back c', 'front d'])
  expect(shape(edit.removeRows(['a', 'c', 'nobody'])(estimate()))).toEqual(['front b', 'front d'])
  expect(shape(edit.renamePart('front', '  fore ')(estimate()))).toEqual(['fore a', 'fore b', 'back c', 'fore d'])
  const own = estimate()
  expect([edit.renamePart('front', ' ')(own), edit.renamePart('front', 'front')(own)]).toEqual([own, own])
  expect(edit.renamePart('front', 'front ')(own)).toBe(own)
})

it('a row goes up and down as the sheet shows it, and over the edge of its part first into the next', () => {
  // shown: a b d | c
  const by = (id: string, step: 1 | -1) => shape(edit.moveRowBy(id, step)(estimate()))
  expect(by('d', -1)).toEqual(['front a', 'front d', 'front b', 'back c'])
  expect(by('d', 1)).toEqual(['front a', 'front b', 'back d', 'back c'])
  expect(by('c', -1)).toEqual(['front a', 'front b', 'front d', 'front c'])
  const own = estimate()
  expect([edit.moveRowBy('a', -1)(own), edit.moveRowBy('c', 1)(own)].every(same => same === own)).toBe(true)
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.constantFrom('a', 'b', 'c', 'd'), fc.constantFrom(1 as const, -1 as const)), { maxLength: 12 }),
      moves => {
        const moved = moves.reduce((e, [id, step]) => edit.moveRowBy(id, step)(e), estimate())
        expect(moved.components.map(row => row.id).sort()).toEqual(['a', 'b', 'c', 'd'])
      },
    ),
  )
})

it('an input is read by its field and confirmed, in the rows or in a scenario; what is so already is no step', () => {
  const own = estimate()
  const set = edit.setInput(['a', 'c'], 'storageGb', '2 TB', onCard(null, own))(own)
  expect(set.components.map(row => [row.inputs.storageGb, row.confirmed])).toEqual([
    ['2000', ['storageGb']],
    ['100', []],
    ['2000', ['storageGb']],
    ['100', []],
  ])
  expect(set.components[1]).toBe(own.components[1])
  expect(edit.setInput(['a'], 'storageGb', '2000', onCard(null, set))(set)).toBe(set)
  expect(edit.setInput(['a'], 'where', '', onCard(null, own))(own)).toBe(own)
  expect(edit.setInput(['a'], 'no such field', ' x ', onCard(null, own))(own).components[0]!.inputs['no such field']).toBe('x')
  const withScenario = { ...own, scenarios: [scenario] }
  const inIt = edit.setInput(['a', 'b'], 'count', '7', onCard('s', withScenario))(withScenario)
  expect(inIt.components).toBe(own.components)
  expect(inIt.scenarios[0]!.rows).toEqual({ a: { count: '7', pays: 'on-demand' }, b: { count: '7' } })
  expect(edit.dropOverride('s', 'a', 'count')(inIt).scenarios[0]!.rows).toEqual({ a: { pays: 'on-demand' }, b: { count: '7' } })
  expect(edit.dropOverride('s', 'nobody', 'count')(inIt).scenarios[0]!.rows.nobody).toEqual({})
})

it('a choice is taken as it is offered where the row stands; an input of a row that goes elsewhere goes along as the same thing', () => {
  const own = {
    ...newEstimate('x', brackwaterCard, 'low-coast'),
    components: testRows([
      ['server', { size: 'otter-2x8', count: '1' }],
      ['server', { size: 'otter-2x8', count: '1' }],
    ]),
  }
  const prices = pricesOf(brackwaterCard, larkfieldCard)
  const work = { scenario: null, priced: priceEstimate(own, prices), cards: prices.cards }
  const [first, second] = own.components.map(row => row.id)
  expect(edit.setInput([first!], 'size', 'OTTER-4X16', work)(own).components[0]!.inputs.size).toBe('otter-4x16')
  const moved = edit.setInput([first!], 'where', 'far-cape', work)(own)
  expect(moved.components.map(row => row.inputs.where)).toEqual(['far-cape', undefined])
  expect(moved.components[1]).toBe(own.components[1])
  expect(edit.setInput([first!, second!], 'where', 'far-cape', work)(moved).components[0]).toBe(moved.components[0])
  // confirmed, but another value; the same value, but not confirmed
  const twice = edit.setInput([first!], 'count', '2', work)(own)
  expect(edit.setInput([first!], 'count', '3', work)(twice).components[0]!.inputs.count).toBe('3')
  expect(edit.setInput([first!], 'count', '1', work)(own).components[0]!.confirmed).toEqual(['count'])
  // of two scenarios only the one that is looked at
  const two = { ...own, scenarios: [scenario, { ...scenario, id: 't' }] }
  const [s, t] = edit.setInput([first!], 'size', 'OTTER-4X16', { ...work, scenario: 't' })(two).scenarios
  expect([s, t!.rows[first!]]).toEqual([two.scenarios[0], { size: 'otter-4x16' }])
  expect(
    edit
      .editRow(second!, row => ({ ...row, note: 'n' }))(own)
      .components.map(row => row.note),
  ).toEqual(['', 'n'])
})

it('rows that are alike become one in the place of the first; others stay', () => {
  const own = estimate()
  const merged = edit.mergeInto('a', 'b')(own)
  expect(merged.components.map(row => [row.id, row.inputs.count])).toEqual([
    ['a', '3'],
    ['c', '3'],
    ['d', '4'],
  ])
  const unlike = { ...own, components: own.components.map(row => (row.id === 'b' ? { ...row, kind: 'server', inputs: {} } : row)) }
  expect(edit.mergeInto('a', 'b')(unlike)).toBe(unlike)
  expect(edit.confirmAll(own).components[0]!.confirmed).toContain('storageGb')
})

it('columns: where only once something is elsewhere; figures of one estimate, or one figure of each scenario with its difference', () => {
  const own = estimate()
  const keys = (e: Estimate) => inputColumns(e).map(({ key }) => key)
  expect(keys(own)).toEqual(['name', 'size', 'amount', 'runs', 'count', 'pays'])
  expect(keys({ ...own, scenarios: [{ ...scenario, rows: { a: { where: 'here', count: '2' }, b: { count: '1' } } }] })[1]).toBe('where')
  expect(keys({ ...own, scenarios: [scenario] })).toHaveLength(6)
  expect(keys(edit.editRow('b', row => ({ ...row, inputs: { ...row.inputs, where: 'here' } }))(own))[1]).toBe('where')
  expect(
    inputColumns(own)
      .filter(({ number }) => number)
      .map(({ key }) => key),
  ).toEqual(['amount', 'runs', 'count'])
  expect(figureColumns(priceScenarios(own, testPrices), 'monthly').map(({ label, at }) => [label, at])).toEqual(
    ['upfront', 'monthly', 'effective monthly', '12 months', '1 year'].map(label => [label, 0]),
  )
  const two = { ...own, scenarios: [scenario, { ...scenario, id: 't' }] }
  const columns = figureColumns(priceScenarios(two, testPrices), 'monthly')
  expect(columns.map(({ at }) => at)).toEqual([0, 1, 1, 2, 2])
  expect(columns.map(({ key, label, difference }) => [key, label, difference ?? false])).toEqual([
    ['monthly 0', 'monthly', false],
    ['monthly 1', 'monthly', false],
    ['monthly 1 difference', 'to A', true],
    ['monthly 2', 'monthly', false],
    ['monthly 2 difference', 'to A', true],
  ])
  const upfront = testEstimate([['server', { size: 'small', count: '1', pays: '3 years, all in advance' }]], { scenarios: [scenario] })
  const priced = priceScenarios(upfront, testPrices)
  expect(figureColumns(priced, 'monthly')[0]).toEqual({ key: 'upfront', label: 'upfront', figure: 'upfront', at: 0, first: true })
  expect(figureColumns(priced.slice(0, 1), 'monthly').at(-1)!.label).toBe('3 years')
  expect(figureColumns(priced, 'upfront').map(({ key }) => key)).toEqual(['upfront 0', 'upfront 1', 'upfront 1 difference'])
})

it('below a row stands what keeps it from being counted, what is worth knowing, and what is open', () => {
  const own = testEstimate([disk(), disk(), ['disk', { class: 'gold' }]])
  const priced = priceEstimate(own, testPrices)
  const [first, , third] = own.components.map(row => row.id)
  const items = sheetItems(own, priced, findNotices(own, priced), first!)
  expect(items.map(({ is }) => is)).toEqual(['part', 'row', 'opened', 'row', 'said', 'row', 'said'])
  const said = items.filter(item => item.is === 'said')
  expect(said[0]).toMatchObject({ text: 'The same component is here twice.', bad: false, duplicateOf: first })
  expect(said[1]).toMatchObject({ key: `${third} class`, bad: true })
  expect(said[1]!.text).toMatch(/^«gold» is not offered .*\. The row is not counted until this fits\.$/)
})

it('rows stand below their parts, with what stands in for what is not offered, and with what to take instead', () => {
  const parts = estimate()
  const priced = priceEstimate(parts, testPrices)
  expect(sheetItems(parts, priced, [], 'b').map(({ key }) => key)).toEqual([...['part front', 'a', 'b', 'b opened', 'd', 'part back', 'c']])
  const moved = {
    ...newEstimate('x', brackwaterCard, 'low-coast'),
    components: testRows([
      ['server', { size: 'otter-2x8', count: '1', where: `${larkfieldCard.provider}/${larkfieldCard.regions[0]!.id}` }],
    ]),
  }
  const elsewhere = priceEstimate(moved, pricesOf(brackwaterCard, larkfieldCard))
  const said = sheetItems(moved, elsewhere, [], null).filter(item => item.is === 'said')
  // a size of one provider is none of the other
  expect(said).toHaveLength(1)
  expect(said[0]).toMatchObject({ key: `${moved.components[0]!.id} size`, bad: true })
  expect(said[0]!.text).toMatch(/^«otter-2x8» is not offered/)
  const scenarios = [
    { id: 's', name: 's', whole: { where: `${larkfieldCard.provider}/${larkfieldCard.regions[0]!.id}` }, rows: {}, conditions: [] },
  ]
  const inScenario = { ...moved, components: testRows([['server', { size: 'otter-2x8', count: '1' }]]), scenarios }
  const replaced = priceScenarios(inScenario, pricesOf(brackwaterCard, larkfieldCard))[1]!
  const items = sheetItems(inScenario, replaced, [], null).filter(item => item.is === 'said')
  const [row] = inScenario.components
  // the other provider's currency has no rate: it can be given from there
  expect(items.map(({ key, bad, rate }) => [key, bad, rate])).toEqual([
    [`${row!.id} where`, true, larkfieldCard.currency],
    [`${row!.id} replaced`, false, undefined],
  ])
  expect(items[0]!.text).toMatch(/^There is no rate from USD to EUR.*\. The row is not counted until this fits\.$/)
  expect(items[1]!.text).toMatch(new RegExp(`^In ${larkfieldCard.regions[0]!.id}: .*otter-2x8`))
})

it('Workings of a row, a part, a step and the total evaluate to what is shown; what is gone has none', () => {
  const own = { ...estimate(), taxPercent: '25' }
  const priced = priceEstimate(own, testPrices)
  const of = (asked: Parameters<typeof explainedWorkings>[0]) => {
    const found = explainedWorkings(asked, own, priced)
    return found && [found.title, evaluate(found.working).toFixed(), found.unit]
  }
  // 100 GB at 0.08 are 8 for each disk; front has 1, 2 and 4 of them
  expect(of({ of: 'part', part: 'front', figure: 'monthly' })).toEqual(['front, monthly', '56', 'EUR'])
  expect(of({ of: 'total', figure: 'monthly' })).toEqual(['Total, monthly', '100', 'EUR'])
  expect(of({ of: 'step', index: 0, figure: 'monthly' })).toEqual(['tax 25 %, monthly', '20', 'EUR'])
  expect(of({ of: 'step', index: 1, figure: 'monthly' })).toBeNull()
  expect(of({ of: 'row', component: 'b', way: null, figure: 'monthly' })![1]).toBe('16')
  expect(of({ of: 'row', component: 'nobody', way: null, figure: 'monthly' })).toBeNull()
  expect(of({ of: 'row', component: 'b', way: 'no way', figure: 'monthly' })).toBeNull()
  const servers = testEstimate([['server', { size: 'small', count: '1', hoursPerMonth: '730', pays: 'on-demand' }]])
  const prices = priceEstimate(servers, testPrices)
  const id = servers.components[0]!.id
  const way = '1 year, paid monthly'
  const hours = explainedWorkings({ of: 'row', component: id, way, figure: 'breakEvenHours' }, servers, prices)!
  expect([hours.unit, hours.title.endsWith('break-even hours')]).toEqual(['h', true])
  // 730 hours at 0.0073 are as dear as 459.4 at 0.0116
  expect(evaluate(hours.working).round(1).toFixed()).toBe('459.4')
  expect(explainedWorkings({ of: 'row', component: id, way: null, figure: 'breakEvenHours' }, servers, prices)).toBeNull()
  expect(testCard.currency).toBe('EUR')
})
