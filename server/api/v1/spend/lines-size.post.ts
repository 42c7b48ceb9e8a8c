import { CSV_CELL_BYTES } from '../../../../shared/contracts/spend-export'
import { checkScope } from '../../../http/question'
import { lineColumns } from '../../../exports/lines/charge-lines'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

/** How many charge lines there are and about how large they would be, said before they are made. */
export default route(operations.spend.linesSize, async ({ cube, body }) => {
  const { question, columns } = body
  checkScope({ ...question, splitBy: [] })
  const { result: rows } = await cube.ask('count', question)
  const { result: facts } = await cube.ask('facts', undefined)
  return {
    rows,
    bytes: rows * columns.length * CSV_CELL_BYTES,
    columns: [...lineColumns, ...facts.found.filter(name => name.startsWith('x_'))],
  }
})
