import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { saveRates } from '../../../stores/rates'

/** Takes the lines of a CSV of exchange rates; all of them or none. */
export default route(operations.sources.takeRates, async ({ database, cube, who, body: rates }) => {
  const changed = await saveRates(database, rates, who)
  await cube.refreshReference()
  return { rates: rates.count, changed }
})
