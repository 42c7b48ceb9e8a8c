import { takeRateCard } from '../../../engine/take-rate-card'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

export default route(operations.rateCards.take, async ({ database, cube, who, body: card }) => {
  return {
    provider: card.provider,
    validFrom: card.validFrom,
    prices: card.prices.length,
    ...(await takeRateCard({ database, cube }, card, who)),
  }
})
