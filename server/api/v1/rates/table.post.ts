import { rateTable } from '../../../../shared/contracts/spend-settings'
import { fileBody } from '../../../http/read-json'
import { body, route } from '../../../http/route'
import { readRates, saveRates } from '../../../stores/rates'

/** Takes the lines of a CSV of exchange rates; all of them or none. */
export default route(async ({ event, database, cube, who }) => {
  const { lines } = await body(event, rateTable, fileBody)
  const rates = readRates(lines)
  const changed = await saveRates(database.db, rates, who)
  await cube.refreshReference()
  return { rates: rates.length, changed }
})
