import { lookForSavings, savingsState } from '../../../engine/savings'
import { route } from '../../../http/route'

/** Looks again through the connector. */
export default route(async context => {
  await lookForSavings(context)
  return savingsState(context)
})
