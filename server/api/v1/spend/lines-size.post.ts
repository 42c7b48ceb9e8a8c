import { CSV_CELL_BYTES } from '../../../../shared/contracts/spend-export'
import { checkScope } from '../../../http/question'
import { lineColumns } from '../../../exports/lines/charge-lines'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

/** How many charge lines there are and about how large they would be, said before they are made. */
export default route(operations.spend.linesSize, async ({ cube, body }) => {
  const { question, columns } = body
  checkScope({ ...question, splitBy: [] })
  const { result } = await cube.ask('narrowed', question)
  const { result: facts } = await cube.ask('facts', undefined)
  return {
    rows: result.charges,
    bytes: result.charges * columns.length * CSV_CELL_BYTES,
    columns: [...lineColumns, ...facts.found.filter(name => name.startsWith('x_'))],
  }
})
