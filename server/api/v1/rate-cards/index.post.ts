import { takeRateCard } from '../../../use-cases/take-rate-card'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

export default route(operations.rateCards.take, ({ database, cube, who, body: card }) => takeRateCard({ database, cube }, card, who))
