import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { changeReference } from '../../../stores/spend-reference'

/** The currency that the company reports in; null where it does not say. */
export default route(operations.spend.saveReportCurrency, async ({ database, cube, who, body }) => {
  await changeReference(database.db, who, known => ({ body: { ...known, ...body }, result: undefined }))
  await cube.refreshReference()
  return body
})
