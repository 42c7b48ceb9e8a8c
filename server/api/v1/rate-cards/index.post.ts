import { rateCardSchema } from '../../../../shared/contracts/reference-data'
import { body, route } from '../../../http/route'
import { saveRateCard } from '../../../stores/rate-cards'

export default route(async ({ event, database, who }) => {
  const card = await body(event, rateCardSchema)
  return { provider: card.provider, validFrom: card.validFrom, prices: card.prices.length, ...await saveRateCard(database.db, card, who) }
})
