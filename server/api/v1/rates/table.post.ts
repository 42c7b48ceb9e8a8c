import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { readRates, saveRates } from '../../../stores/rates'

/** Takes the lines of a CSV of exchange rates; all of them or none. */
export default route(operations.sources.takeRates, async ({ database, cube, who, body }) => {
  const { lines } = body
  const rates = readRates(lines)
  const changed = await saveRates(database.db, rates, who)
  await cube.refreshReference()
  return { rates: rates.length, changed }
})
