import { namedRows, type NamedRow, type TextTable, type WrongLine } from '../../text/text-table'
import { costMeasures } from '../../spend/question'
import { isDay } from '../../time/day'
import type { Condition } from '../condition'
import type { AllocationPlan, Rule } from '../plan'
import { partsByTree, treesOf, type TableParts } from './plan-parts'

/** Columns of a table of rules: those that there have to be, then those that there may be. */
export const ruleHeads = ['rule', 'goes to', 'condition', 'looks at', 'test', 'value', 'from', 'until', 'tree'] as const
const NEEDED = 6
const tests = ['is', 'is none', 'is like', 'is at least', 'is below'] as const
type Test = (typeof tests)[number]

/** Whether the heads of a table are those of rules. */
export const isRuleTable = (heads: readonly string[]): boolean => ruleHeads.slice(0, NEEDED).every(name => heads.includes(name))

/** The rules of a plan in their order, a row for each value that a condition names, as `readRuleTable` takes them. */
export function ruleTable(plan: AllocationPlan): TextTable {
  const isOne = !plan.trees?.length
  return {
    heads: ruleHeads.slice(0, isOne ? -1 : undefined),
    rows: treesOf(plan).flatMap(([tree, { rules }]) =>
      rules.flatMap(({ id, target, conditions, from, until }) =>
        conditions.flatMap((condition, at) =>
          testsOf(condition).map(cells => [
            ...[id, target, String(at + 1), ...cells, from ?? '', until ?? ''],
            ...(isOne ? [] : [tree ?? '']),
          ]),
        ),
      ),
    ),
  }
}

/** What a condition looks at, its test and its value; one for each value that it names. */
function testsOf(condition: Condition): [looksAt: string, test: Test, value: string][] {
  if ('measure' in condition) {
    const { measure, atLeast, below } = condition
    return [
      ...(atLeast === undefined ? [] : [[measure, 'is at least', atLeast] as [string, Test, string]]),
      ...(below === undefined ? [] : [[measure, 'is below', below] as [string, Test, string]]),
    ]
  }
  if ('pattern' in condition) return [[condition.dimension, 'is like', condition.pattern]]
  return condition.values.map(value => (value === null ? [condition.dimension, 'is none', ''] : [condition.dimension, 'is', value]))
}

type Row = NamedRow<(typeof ruleHeads)[number]>

/**
 * Reads a table of rules: rows of one rule follow each other, and rows of one of its conditions have its number. The order of rules is that
 * of the rows. @returns them by tree (null for the first); nothing of it where a line is wrong: all of those are told.
 */
export function readRuleTable(table: TextTable): { parts: TableParts<Rule> | null; wrong: WrongLine[] } {
  const { rows, wrong } = namedRows(table, ruleHeads, NEEDED)
  const read: { tree: string | null; line: number; item: Rule; rows: Row[] }[] = []
  const known = new Set<string>()
  for (const row of rows) {
    const { line, cell } = row
    const say = (why: string) => wrong.push({ line, why })
    const [id, target, tree] = [cell('rule'), cell('goes to'), cell('tree') || null]
    if (id === '') say('it has no rule')
    if (target === '') say('it does not say where the rule goes to')
    const last = read.at(-1)
    if (last && last.item.id === id && last.tree === tree) {
      const same = last.rows[0]!
      for (const name of ['goes to', 'from', 'until'] as const)
        if (cell(name) !== same.cell(name)) say(`«${name}» is another than on line ${same.line} of the same rule`)
      last.rows.push(row)
      continue
    }
    const key = JSON.stringify([tree, id])
    if (known.has(key)) say(`the rule «${id}» stands further up: keep its lines together`)
    known.add(key)
    for (const which of ['from', 'until'] as const)
      if (cell(which) && !isDay(cell(which))) say(`«${cell(which)}» is no day: write ${which} like 2026-11-01`)
    const days = { ...(cell('from') && { from: cell('from') }), ...(cell('until') && { until: cell('until') }) }
    read.push({ tree, line, item: { id, conditions: [], target, ...days }, rows: [row] })
  }
  for (const { item, rows: own } of read) item.conditions = conditionsOf(own, wrong)
  if (!wrong.length && !read.length) wrong.push({ line: 1, why: 'it has no rows below its heads' })
  wrong.sort((a, b) => a.line - b.line)
  return { parts: wrong.length ? null : partsByTree(read), wrong }
}

/** The conditions of a rule: rows of one number are one. */
function conditionsOf(rows: readonly Row[], wrong: WrongLine[]): Condition[] {
  const conditions: Condition[] = []
  let number: string | null = null
  for (const { line, cell, raw } of rows) {
    const [looksAt, test, value] = [cell('looks at'), cell('test') as Test, raw('value')]
    const made = conditionOf(looksAt, test, value)
    if (typeof made === 'string') {
      wrong.push({ line, why: made })
      continue
    }
    const last = conditions.at(-1)
    if (cell('condition') !== number || !last) {
      number = cell('condition')
      conditions.push(made)
    } else if ('values' in last && 'values' in made && last.dimension === made.dimension) last.values.push(...made.values)
    else if ('measure' in last && 'measure' in made && last.measure === made.measure) Object.assign(last, made)
    else
      wrong.push({
        line,
        why: 'a condition names several values of one thing, or a least and a largest amount: give this one another number',
      })
  }
  return conditions
}

/** A condition of one row, or what is wrong with it. */
function conditionOf(looksAt: string, test: Test, value: string): Condition | string {
  if (looksAt === '') return 'it does not say what the rule looks at'
  if (!tests.includes(test)) return `«${test}» is no test: write ${tests.slice(0, -1).join(', ')} or ${tests.at(-1)}`
  if (test === 'is none') return value === '' ? { dimension: looksAt, values: [null] } : '«is none» has no value beside it'
  // a tag may be there and say nothing
  if (test === 'is') return { dimension: looksAt, values: [value] }
  if (value.trim() === '') return `«${test}» has a value beside it`
  if (test === 'is like') return { dimension: looksAt, pattern: value }
  const measure = costMeasures.find(name => name === looksAt)
  if (!measure) return `amounts are those of ${costMeasures.join(', ')}`
  return test === 'is at least' ? { measure, atLeast: value.trim() } : { measure, below: value.trim() }
}
