import type { Readable } from 'node:stream'
import { ALLOCATION_COLUMNS, allocationOf, sharedLines } from '../../core/allocation/statements/focus-lines'
import { treeOf, type CentreTree } from '../../core/allocation/plan'
import type { Settlement } from '../../core/allocation/settle'
import type { CostMeasure, Scope } from '../../core/spend/question'
import type { StatementsAsked } from '../../shared/contracts/allocation'
import type { LoadRows } from '../charges/cube/cube-calls'
import { lineColumns } from '../exports/lines/charge-lines'
import { JsonBytes } from '../json-bytes'
import { conflict, notFound } from '../problems/problem'
import { chargesOf } from './line-source'
import { settledMonth } from './settled-month'
import type { Work } from './work'

/** So often it is begun anew where other charges come to count meanwhile. */
const MOST_TRIES = 3

/**
 * The charge lines of a billing month as FOCUS, with whose each is in `x_` columns, and below them what is borne of pools: all add up to
 * the bill, those of a cost centre to its statement. Of a closed month as it is known today.
 */
export async function allocatedLines(
  work: Work,
  { month, measure, tree: asked }: Omit<StatementsAsked, 'centre'>,
): Promise<{ pieces: Readable; fileName: string }> {
  const tree = asked ?? null
  const scope: Scope = { start: '1970-01-01', end: '2200-01-01', keep: {}, leaveOut: {}, billingMonth: month }
  for (let tries = 1; ; tries++) {
    const { plan, reply } = await settledMonth(work, { month, measure, ...(asked !== undefined && { tree: asked }), as: 'today' })
    const names = treeOf(plan, tree)
    if (!names) throw notFound('tree', `No tree of cost centres is called «${asked}».`)
    const settled = reply instanceof JsonBytes ? reply.read() : reply
    const { revision, result } = await work.seen.ask('rowsByCentre', { scope, tree })
    // lines and shares are of one state of the charges
    if (revision !== settled.revision && tries < MOST_TRIES) continue
    if (revision !== settled.revision)
      throw conflict('The charges are changing', 'Other charges came to count meanwhile: try again in a moment.')
    return written(work, { month, measure, scope, names, settled, ...result })
  }
}

/** The lines as a file that is made while it is taken. */
async function written(
  work: Work,
  {
    month,
    measure,
    scope,
    names,
    settled,
    values,
    loads,
  }: {
    month: string
    measure: CostMeasure
    scope: Scope
    names: CentreTree
    settled: Pick<Settlement, 'statements'>
    values: readonly (string | null)[]
    loads: LoadRows[]
  },
) {
  const { result: facts } = await work.seen.ask('facts', undefined)
  const columns = [...lineColumns, ...facts.found.filter(name => name.startsWith('x_') && !isAllocation(name))]
  const charges = loads.reduce((sum, { segments }) => sum + segments.reduce((rows, own) => rows + (own?.length ?? 0), 0), 0)
  const pieces = work.exporter.lines(
    { ...chargesOf(work, scope), rows: () => Promise.resolve(loads) },
    {
      ...{ scope, columns, format: 'csv', charges, within: null },
      beside: {
        columns: ALLOCATION_COLUMNS,
        marked: values.map(target => allocationOf(target, names)),
        below: sharedLines(settled, names, { month, measure, columns }),
      },
    },
  )
  return { pieces, fileName: `charges-${month}-allocated.csv` }
}

const isAllocation = (name: string) => (ALLOCATION_COLUMNS as readonly string[]).includes(name)
