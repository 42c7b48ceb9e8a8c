import { rateCardSchema } from '../../../../shared/contracts/reference-data'
import { takeRateCard } from '../../../engine/take-rate-card'
import { fileBody } from '../../../http/read-json'
import { body, route } from '../../../http/route'

export default route(async ({ event, database, cube, who }) => {
  const card = await body(event, rateCardSchema, fileBody)
  return {
    provider: card.provider,
    validFrom: card.validFrom,
    prices: card.prices.length,
    ...(await takeRateCard({ database, cube }, card, who)),
  }
})
