import { setResponseHeader } from 'h3'
import { lineSource } from '../../../charges/line-source'
import { isLineColumn } from '../../../exports/lines/charge-lines'
import { MOST_SHEET_ROWS, tableMimes } from '../../../exports/tables/table-writer'
import { operations } from '../../../http/operations'
import { Problem } from '../../../http/problem'
import { checkScope } from '../../../http/question'
import { route } from '../../../http/route'
import { sendPieces } from '../../../http/send-stream'

/** The charge lines behind what is shown. CSV and XLSX are sent as they are read; the other formats are made whole first. */
export default route(operations.spend.lines, async ({ event, exporter, body, ...services }) => {
  const { question, columns, format } = body
  checkScope({ ...question, splitBy: [] })
  const wrong = columns.filter(name => !isLineColumn(name))
  if (wrong.length)
    throw new Problem(
      422,
      'no-column',
      'Charges have no such column',
      `${wrong.map(name => `«${name}»`).join(', ')}: use FOCUS columns, or a provider's own column x_NAME.`,
    )
  const { result: charges } = await services.cube.ask('count', question)
  if (format !== 'csv' && charges > MOST_SHEET_ROWS)
    throw new Problem(
      422,
      'too-many-rows',
      'These are too many lines for this format',
      `${charges} lines: take CSV, which has no bound, or narrow what is shown.`,
    )
  setResponseHeader(event, 'content-type', tableMimes[format])
  return sendPieces(event, exporter.lines(lineSource(services, question), { scope: question, columns, format, charges }))
})
