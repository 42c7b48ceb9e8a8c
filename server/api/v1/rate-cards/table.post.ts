import { takeRateCard } from '../../../use-cases/take-rate-card'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

/** Takes a rate card as the lines of a CSV file; refused line by line. */
export default route(operations.rateCards.takeTable, ({ database, cube, who, body: card }) => takeRateCard({ database, cube }, card, who))
