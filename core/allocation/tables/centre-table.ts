import { namedRows, type TextTable, type WrongLine } from '../../text/text-table'
import { isDay } from '../../time/day'
import type { AllocationPlan, CostCentre } from '../plan'
import { partsByTree, treesOf, type TableParts } from './plan-parts'

/** Columns of a table of cost centres: those that there have to be, then those that there may be. */
export const centreHeads = ['cost centre', 'name', 'below', 'owner', 'code', 'from', 'until', 'tree'] as const
const NEEDED = 3

/** Whether the heads of a table are those of cost centres. */
export const isCentreTable = (heads: readonly string[]): boolean => centreHeads.slice(0, NEEDED).every(name => heads.includes(name))

/** The cost centres of a plan, a row each, as `readCentreTable` takes them; the tree stands beside where there are several. */
export function centreTable(plan: AllocationPlan): TextTable {
  const isOne = !plan.trees?.length
  return {
    heads: centreHeads.slice(0, isOne ? -1 : undefined),
    rows: treesOf(plan).flatMap(([tree, { centres }]) =>
      centres.map(({ id, name, parent, owner, code, from, until }) => [
        ...[id, name, parent ?? '', owner ?? '', code ?? '', from ?? '', until ?? ''],
        ...(isOne ? [] : [tree ?? '']),
      ]),
    ),
  }
}

/**
 * Reads a table of cost centres: the id, the name, the id of the one that it is below, the id of its owner, what the ledger calls it, and
 * its days. @returns them by tree (null for the first); nothing of it where a line is wrong: all of those are told.
 */
export function readCentreTable(table: TextTable): { parts: TableParts<CostCentre> | null; wrong: WrongLine[] } {
  const { rows, wrong } = namedRows(table, centreHeads, NEEDED)
  const read = rows.map(({ line, cell }) => {
    const [id, name] = [cell('cost centre'), cell('name')]
    if (id === '') wrong.push({ line, why: 'it has no cost centre' })
    if (name === '') wrong.push({ line, why: 'it has no name' })
    for (const which of ['from', 'until'] as const)
      if (cell(which) && !isDay(cell(which))) wrong.push({ line, why: `«${cell(which)}» is no day: write ${which} like 2026-11-01` })
    const days = { ...(cell('from') && { from: cell('from') }), ...(cell('until') && { until: cell('until') }) }
    const item: CostCentre = {
      ...{ id, name, parent: cell('below') || null, owner: cell('owner') || null },
      ...(cell('code') && { code: cell('code') }),
      ...days,
    }
    return { tree: cell('tree') || null, line, item }
  })
  if (!wrong.length && !read.length) wrong.push({ line: 1, why: 'it has no rows below its heads' })
  return { parts: wrong.length ? null : partsByTree(read), wrong }
}
