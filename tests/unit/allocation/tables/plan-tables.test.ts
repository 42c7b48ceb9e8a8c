import fc from 'fast-check'
import { expect, it } from 'vitest'
import { allocationPlanSchema, type AllocationPlan } from '../../../../core/allocation/plan'
import { centreTable, isCentreTable, readCentreTable } from '../../../../core/allocation/tables/centre-table'
import { withTable } from '../../../../core/allocation/tables/plan-parts'
import { isRuleTable, readRuleTable, ruleTable } from '../../../../core/allocation/tables/rule-table'
import type { Condition } from '../../../../core/allocation/condition'
import { allocationPlan } from '../../../../demo/organisation'
import { laterPlan } from '../../../../demo/later-plan'

const centre = (id: string, more = {}) => ({ id, name: id.toUpperCase(), parent: null, owner: null, ...more })
const plan: AllocationPlan = {
  centres: [centre('top'), centre('a', { parent: 'top', owner: 'ines', code: '4100', from: '2026-11-01', until: '2027-01-01' })],
  pools: [{ id: 'net', name: 'Network', method: 'even' }],
  rules: [
    {
      ...{ id: 'r1', target: 'a', from: '2026-11-01' },
      conditions: [
        { dimension: 'Tags/team', values: ['a', 'A, or so', '', null] },
        { dimension: 'ResourceName', pattern: 'crew-*' },
        { measure: 'billedCost', atLeast: '-2.5', below: '10' },
      ],
    },
    { id: 'constructor', target: 'net', conditions: [{ dimension: 'SubAccountName', values: ['live'] }] },
  ],
}

it('is a row for each cost centre, and for each value that a condition names', () => {
  expect(centreTable(plan)).toEqual({
    heads: ['cost centre', 'name', 'below', 'owner', 'code', 'from', 'until'],
    rows: [
      ['top', 'TOP', '', '', '', '', ''],
      ['a', 'A', 'top', 'ines', '4100', '2026-11-01', '2027-01-01'],
    ],
  })
  expect(ruleTable(plan)).toEqual({
    heads: ['rule', 'goes to', 'condition', 'looks at', 'test', 'value', 'from', 'until'],
    rows: [
      ['r1', 'a', '1', 'Tags/team', 'is', 'a', '2026-11-01', ''],
      ['r1', 'a', '1', 'Tags/team', 'is', 'A, or so', '2026-11-01', ''],
      ['r1', 'a', '1', 'Tags/team', 'is', '', '2026-11-01', ''],
      ['r1', 'a', '1', 'Tags/team', 'is none', '', '2026-11-01', ''],
      ['r1', 'a', '2', 'ResourceName', 'is like', 'crew-*', '2026-11-01', ''],
      ['r1', 'a', '3', 'billedCost', 'is at least', '-2.5', '2026-11-01', ''],
      ['r1', 'a', '3', 'billedCost', 'is below', '10', '2026-11-01', ''],
      ['constructor', 'net', '1', 'SubAccountName', 'is', 'live', '', ''],
    ],
  })
  expect([isCentreTable(centreTable(plan).heads), isRuleTable(ruleTable(plan).heads)]).toEqual([true, true])
  expect([isRuleTable(centreTable(plan).heads), isCentreTable(['name', 'below'])]).toEqual([false, false])
})

/** Takes both tables of a plan back into one without them. */
function andBack(own: AllocationPlan): unknown {
  const bare: AllocationPlan = {
    ...own,
    centres: [...own.centres].reverse(),
    rules: [],
    ...(own.trees && { trees: own.trees.map(tree => ({ ...tree, rules: [] })) }),
  }
  const centres = withTable(bare, 'centres', readCentreTable(centreTable(own)).parts!)
  const rules = readRuleTable(ruleTable(own))
  return rules.parts ? withTable(centres.plan!, 'rules', rules.parts).plan : centres.plan
}
const plain = (own: unknown) => JSON.parse(JSON.stringify(own, (_, value: unknown) => (value === null ? undefined : value))) as unknown

it('what is printed is taken back as it was, of every tree', () => {
  for (const own of [plan, allocationPlan, laterPlan(allocationPlan)]) expect(andBack(own)).toEqual(allocationPlanSchema.parse(own))
  const text = fc.string({ minLength: 1, maxLength: 6 }).map(one => `x${one}x`)
  const day = fc.option(fc.constantFrom('2026-10-01', '2026-11-01'), { nil: undefined })
  const dimension = fc.constantFrom('Tags/team', 'SubAccountName', 'Lookup/apps/owner')
  const condition: fc.Arbitrary<Condition> = fc.oneof(
    fc.record({ dimension, values: fc.array(fc.option(text), { minLength: 1, maxLength: 3 }) }),
    fc.record({ dimension, pattern: text }),
    fc.record({ measure: fc.constant('listCost' as const), atLeast: fc.constantFrom('0', '-1.5') }),
    fc.record({ measure: fc.constant('billedCost' as const), below: fc.constantFrom('0', '1e3') }),
  )
  const rules = fc
    .array(fc.record({ conditions: fc.array(condition, { minLength: 1, maxLength: 4 }), target: fc.constantFrom('top', 'a'), from: day }), {
      maxLength: 5,
    })
    .map(list => list.map((one, i) => ({ id: `r${i}`, ...one })))
  const centres = fc
    .tuple(text, text, day)
    .map(([name, code, from]) => [centre('top', { name }), centre('a', { parent: 'top', code, from })])
  const tree = fc.record({ centres, rules, pools: fc.constant<AllocationPlan['pools']>([]) })
  fc.assert(
    fc.property(tree, fc.option(tree, { nil: undefined }), (first, second) => {
      const own: AllocationPlan = { ...first, ...(second && { trees: [{ id: 'two', name: 'Two', ...second }] }) }
      expect(plain(andBack(own))).toEqual(plain(own))
    }),
  )
})

it('lists every wrong line with its reason, and takes nothing', () => {
  const heads = [...centreTable(plan).heads]
  const wrongCentres = readCentreTable({
    heads,
    rows: [['', 'A', '', '', '', '1 Nov', ''], [], ['b', '', '', '', '', '', '2026-02-30', 'x']],
  })
  expect(wrongCentres).toEqual({
    parts: null,
    wrong: [
      { line: 4, why: 'it has 8 cells, and the table 7 columns' },
      { line: 2, why: 'it has no cost centre' },
      { line: 2, why: '«1 Nov» is no day: write from like 2026-11-01' },
      { line: 4, why: 'it has no name' },
      { line: 4, why: '«2026-02-30» is no day: write until like 2026-11-01' },
    ],
  })
  expect(readCentreTable({ heads: ['cost centre', 'name', 'colour', 'name'], rows: [] }).wrong.map(({ why }) => why)).toEqual([
    ...['there is no column «below»', 'there is no use for a column «colour»', 'the column «name» appears twice'],
  ])
  expect(readCentreTable({ heads, rows: [['']] }).wrong).toEqual([{ line: 1, why: 'it has no rows below its heads' }])
  const row = (rule: string, to: string, ...cells: string[]) => [rule, to, ...cells]
  const { parts, wrong } = readRuleTable({
    heads: [...ruleTable(plan).heads],
    rows: [
      row('', '', '1', '', 'is', 'x'),
      row('r1', 'a', '1', 'Tags/team', 'equals', 'x'),
      row('r1', 'b', '2', 'Tags/team', 'is none', 'x'),
      row('r1', 'a', '3', 'ResourceName', 'is like', ' '),
      row('r1', 'a', '4', 'unitPrice', 'is below', '3'),
      row('r2', 'a', '1', 'Tags/team', 'is', 'x', '2026-13-01'),
      row('r2', 'a', '1', 'Tags/product', 'is', 'x', '2026-13-01'),
      row('r1', 'a', '1', 'Tags/team', 'is', 'x'),
    ],
  })
  expect(parts).toBeNull()
  expect(wrong.map(({ line, why }) => `${line} ${why}`)).toEqual([
    ...['2 it has no rule', '2 it does not say where the rule goes to', '2 it does not say what the rule looks at'],
    '3 «equals» is no test: write is, is none, is like, is at least or is below',
    ...['4 «goes to» is another than on line 3 of the same rule', '4 «is none» has no value beside it'],
    '5 «is like» has a value beside it',
    '6 amounts are those of billedCost, effectiveCost, listCost, contractedCost',
    '7 «2026-13-01» is no day: write from like 2026-11-01',
    '8 a condition names several values of one thing, or a least and a largest amount: give this one another number',
    '9 the rule «r1» stands further up: keep its lines together',
  ])
})

it('says on which line a plan would be wrong with it, and which trees there are not', () => {
  const rows = [
    ['top', 'Top', '', '', '', '', ''],
    ['a', 'A', 'gone', '', '', '', ''],
  ]
  const heads = [...centreTable(plan).heads]
  expect(withTable(plan, 'centres', readCentreTable({ heads, rows }).parts!)).toEqual({
    plan: null,
    wrong: [{ line: 3, why: 'there is no cost centre «gone»' }],
  })
  // a rule of the plan that the table leaves without its cost centre
  const without = withTable(plan, 'centres', readCentreTable({ heads, rows: rows.slice(0, 1) }).parts!)
  expect(without.wrong).toEqual([{ line: 1, why: 'with it rules 0 target: there is no cost centre or pool «a»' }])
  const other = readCentreTable({ heads: [...heads, 'tree'], rows: [['x', 'X', '', '', '', '', '', 'none']] })
  expect(withTable(plan, 'centres', other.parts!).wrong).toEqual([{ line: 2, why: 'there is no tree «none»' }])
  const target = readRuleTable({ heads: [...ruleTable(plan).heads], rows: [['r', 'gone', '1', 'Tags/team', 'is', 'x', '', '']] })
  expect(withTable(plan, 'rules', target.parts!).wrong).toEqual([{ line: 2, why: 'there is no cost centre or pool «gone»' }])
})
